<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

/** Depths in inches or centimeters, and with them elevations in feet or meters. */
enum LengthUnit: string
{
    case Inches = 'in';
    case Centimeters = 'cm';

    /** The unit of an elevation: "ft", "m". */
    public function ofElevation(): string
    {
        return $this === self::Inches ? 'ft' : 'm';
    }
}
