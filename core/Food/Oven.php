<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** The kinds of oven the roast table tells apart. */
enum Oven: string
{
    case Still = 'still';
    case Convection = 'convection';
    case HighHumidity = 'high_humidity';
}
