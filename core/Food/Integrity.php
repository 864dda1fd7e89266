<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Whether anything had carried the surface inside before the record begins. */
enum Integrity: string
{
    case Intact = 'intact';
    case NonIntact = 'non_intact';
}
