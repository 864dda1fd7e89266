<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** The plans under which time stands in for temperature. */
enum TimePlan: string
{
    case Hot4h = 'hot_4h';
    case Cold4h = 'cold_4h';
    case Cold6h = 'cold_6h';
}
