<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Measure\TemperatureUnit;

/** The units a kitchen works in, as one choice; each part can be changed by itself. */
enum UnitSystem: string
{
    case UsCustomary = 'us';
    case Metric = 'metric';

    public static function matching(
        TemperatureUnit $unit,
        WeightUnit $weight,
        LengthUnit $length,
        ClockFace $clock,
    ): ?self {
        foreach (self::cases() as $one) {
            $parts = [$one->temperature(), $one->weight(), $one->length(), $one->clock()];
            if ($parts === [$unit, $weight, $length, $clock]) {
                return $one;
            }
        }

        return null;
    }

    public function temperature(): TemperatureUnit
    {
        return $this === self::UsCustomary ? TemperatureUnit::Fahrenheit : TemperatureUnit::Celsius;
    }

    public function weight(): WeightUnit
    {
        return $this === self::UsCustomary ? WeightUnit::Pounds : WeightUnit::Kilograms;
    }

    public function length(): LengthUnit
    {
        return $this === self::UsCustomary ? LengthUnit::Inches : LengthUnit::Centimeters;
    }

    public function clock(): ClockFace
    {
        return $this === self::UsCustomary ? ClockFace::Hours12 : ClockFace::Hours24;
    }
}
