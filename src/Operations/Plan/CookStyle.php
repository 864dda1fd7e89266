<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

/** The ways a kitchen cooks that a dish can begin with: by feel, low or hot; or by the clock. */
enum CookStyle: string
{
    case LowSlow = 'low_slow';
    case HotFast = 'hot_fast';
    case Clock = 'clock';
}
