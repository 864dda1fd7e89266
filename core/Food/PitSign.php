<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Observations and actions at a pit. All are recorded; some concern its temperature. */
enum PitSign: string
{
    case Lit = 'lit';
    case CleanSmoke = 'clean_smoke';
    case Preheated = 'preheated';
    case Set = 'set';
    case Reading = 'reading';
    case Fuel = 'fuel';
    case Wood = 'wood';
    case CoalsStirred = 'coals_stirred';
    case WaterPan = 'water_pan';
    case Vents = 'vents';
    case LidOpened = 'lid_opened';
    case LidClosed = 'lid_closed';
    case Out = 'out';

    /** Whether it comes with a temperature. */
    public function hasTemperature(): bool
    {
        return $this === self::Set || $this === self::Reading;
    }
}
