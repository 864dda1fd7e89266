<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Forecast;

/** Whether what is done waits until a forecast is made. */
enum ForecastTiming
{
    case ForIt;
    /** Only where nobody is making it, or there is none of this stage yet. */
    case UnlessItComes;
    case Never;
    /** Never; and one that is a little older is good enough: what logs by itself goes on saying more. */
    case Rarely;
}
