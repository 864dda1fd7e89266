<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

/** The pressure of the air: hectopascals, or inches of mercury where lengths are in inches. */
enum PressureUnit: string
{
    /** Hectopascals in each unit that is typed. */
    public const HECTOPASCALS_IN = ['hpa' => 1.0, 'mbar' => 1.0, 'inhg' => 33.8639];

    case Hectopascals = 'hPa';
    case InchesOfMercury = 'inHg';

    public static function besides(LengthUnit $length): self
    {
        return $length === LengthUnit::Inches ? self::InchesOfMercury : self::Hectopascals;
    }
}
