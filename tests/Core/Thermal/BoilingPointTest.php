<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Thermal;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Thermal\BoilingPoint;

/** Against steam tables and the standard atmosphere, to a tenth or two of a degree. */
final class BoilingPointTest extends TestCase
{
    #[DataProvider('elevations')]
    public function testAtAnElevation(int $metres, float $celsius): void
    {
        self::assertEqualsWithDelta(
            $celsius,
            BoilingPoint::atElevation($metres, TemperatureUnit::Celsius)->tenths / 10,
            0.15,
        );
        self::assertEqualsWithDelta(
            $celsius * 1.8 + 32,
            BoilingPoint::atElevation($metres, TemperatureUnit::Fahrenheit)->tenths / 10,
            0.25,
        );
    }

    /** @return iterable<array{int, float}> */
    public static function elevations(): iterable
    {
        yield [-400, 101.3];
        yield [0, 100.0];
        yield [500, 98.3];
        yield [1000, 96.7];
        yield [1610, 94.7];
        yield [3000, 90.0];
    }

    #[DataProvider('pressures')]
    public function testAtAPressure(int $hectopascals, float $celsius): void
    {
        self::assertEqualsWithDelta(
            $celsius,
            BoilingPoint::atPressure($hectopascals, TemperatureUnit::Celsius)->tenths / 10,
            0.15,
        );
    }

    /** @return iterable<array{int, float}> */
    public static function pressures(): iterable
    {
        yield [1013, 100.0];
        yield [1050, 101.0];
        yield [900, 96.7];
        yield [835, 94.7];
        yield [700, 90.0];
    }

    public function testItIsComparedInTheUnitOfTheThermometer(): void
    {
        self::assertSame(
            TemperatureUnit::Fahrenheit,
            BoilingPoint::atElevation(1610, TemperatureUnit::Fahrenheit)->unit,
        );
        self::assertSame('202.4', BoilingPoint::atElevation(1610, TemperatureUnit::Fahrenheit)->number());
    }
}
