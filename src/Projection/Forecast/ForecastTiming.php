<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Forecast;

/** Whether the caller waits for a forecast. */
enum ForecastTiming
{
    case ForIt;
    /** Only if no one else is making it, or there is none of this stage yet. */
    case UnlessItComes;
    case Never;
    /** Never; an older one is good enough: a sensor will trigger the next. */
    case Rarely;
}
