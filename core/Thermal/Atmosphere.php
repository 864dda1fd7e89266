<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/** The air's pressure by elevation, as the standard atmosphere (ICAO) has it; weather moves it by about 2 %. */
final readonly class Atmosphere
{
    private const SEA_LEVEL = 101_325.0; // Pa

    /** @return float Pa, from −430 to 5,000 m above sea level */
    public static function pascals(int $metres): float
    {
        return self::SEA_LEVEL * (1 - 2.25577e-5 * $metres) ** 5.25588;
    }
}
