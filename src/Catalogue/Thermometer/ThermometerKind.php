<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Thermometer;

/** How a thermometer is used. */
enum ThermometerKind: string
{
    case Instant = 'instant';
    case LeaveIn = 'leave_in';
    case Pit = 'pit';
    case Infrared = 'infrared';
    case Logger = 'logger';
}
