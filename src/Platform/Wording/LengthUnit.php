<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

/** Depths in inches or centimeters, and with them elevations in feet or meters. */
enum LengthUnit: string
{
    /** Millimeters in each unit that is typed or written. */
    public const MILLIMETERS_IN = [
        'mm' => 1.0,
        'cm' => 10.0,
        'm' => 1000.0,
        'in' => 25.4,
        'inch' => 25.4,
        'inches' => 25.4,
        '"' => 25.4,
        'ft' => 304.8,
        'feet' => 304.8,
    ];

    case Inches = 'in';
    case Centimeters = 'cm';

    /** The unit of an elevation: "ft", "m". */
    public function ofElevation(): string
    {
        return $this === self::Inches ? 'ft' : 'm';
    }
}
