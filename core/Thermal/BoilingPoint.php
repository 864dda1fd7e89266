<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * The boiling point of pure water, for checking thermometers: Antoine's equation for water from 1 to 100 °C, at the
 * day's air pressure or, if it was not read, at the standard atmosphere's for the elevation. Weather moves it by about
 * ±0.7 °F (0.4 °C).
 */
final readonly class BoilingPoint
{
    private const HPA_PER_MMHG = 1.33322387;

    /** @param int $metres above sea level, from −430 to 5,000 */
    public static function atElevation(int $metres, TemperatureUnit $unit): Temperature
    {
        return self::atPressure(Atmosphere::pascals($metres) / 100, $unit);
    }

    /** @param float $hectopascals as read on the spot, not reduced to sea level; from 500 to 1,080 */
    public static function atPressure(float $hectopascals, TemperatureUnit $unit): Temperature
    {
        $celsius = 1730.63 / (8.07131 - log10($hectopascals / self::HPA_PER_MMHG)) - 233.426;
        $degrees = $unit === TemperatureUnit::Celsius ? $celsius : $celsius * 1.8 + 32;

        return Temperature::ofTenths((int) round(10 * $degrees), $unit);
    }
}
