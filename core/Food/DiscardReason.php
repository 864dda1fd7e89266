<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** What food was disposed of for. */
enum DiscardReason: string
{
    case Safety = 'safety';
    case Waste = 'waste';
    case Donated = 'donated';
}
