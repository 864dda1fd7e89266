<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Measure;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\UnknownTimeZone;

final class MeasureTest extends TestCase
{
    #[DataProvider('written')]
    public function testReadsATemperature(string $raw, int $tenths, TemperatureUnit $unit): void
    {
        $temperature = Temperature::parse($raw, TemperatureUnit::Fahrenheit);
        self::assertSame([$tenths, $unit], [$temperature->tenths, $temperature->unit]);
    }

    /** @return iterable<array{string, int, TemperatureUnit}> */
    public static function written(): iterable
    {
        yield ['203', 2030, TemperatureUnit::Fahrenheit];
        yield [' 203.5 ', 2035, TemperatureUnit::Fahrenheit];
        yield ['95c', 950, TemperatureUnit::Celsius];
        yield ['38,5 °C', 385, TemperatureUnit::Celsius];
        yield ['-4.1F', -41, TemperatureUnit::Fahrenheit];
        yield ['−18c', -180, TemperatureUnit::Celsius];
        yield ['-0.5', -5, TemperatureUnit::Fahrenheit];
        yield ['1000', 10000, TemperatureUnit::Fahrenheit];
        yield ['540c', 5400, TemperatureUnit::Celsius];
    }

    #[DataProvider('refused')]
    public function testRefusesWhatIsNoTemperatureAndSaysWhatIs(string $raw, string $message): void
    {
        $this->expectException(MalformedTemperature::class);
        $this->expectExceptionMessage($message);
        Temperature::parse($raw, TemperatureUnit::Fahrenheit);
    }

    /** @return iterable<array{string, string}> */
    public static function refused(): iterable
    {
        yield ['warm', 'write a number with at most one decimal'];
        yield ['', 'write a number'];
        yield ['203.55', 'more than one decimal'];
        yield ['1000.1', 'from -40 to 1000 °F'];
        yield ['-40.1', 'from -40 to 1000 °F'];
        yield ['540.1c', 'from -40 to 540 °C'];
        yield ['1e3', 'write a number'];
    }

    public function testAGoalInTheOtherUnitIsNeverColder(): void
    {
        foreach (['165' => 74, '203' => 95, '145' => 63, '130' => 55, '32' => 0, '-40' => -40] as $f => $c) {
            self::assertSame(10 * $c, Temperature::fahrenheit((string) $f)->goalInOtherUnit()->tenths);
        }
        foreach (['74' => 166, '63' => 146, '95' => 203, '0' => 32, '-40' => -40] as $c => $f) {
            self::assertSame(10 * $f, Temperature::celsius((string) $c)->goalInOtherUnit()->tenths);
        }
    }

    public function testALimitInOneUnitIsComparedExactly(): void
    {
        $hot = Threshold::ofOne(Temperature::fahrenheit('135'));
        // 135 °F is 57.222… °C: rounded first, 57.2 °C would pass.
        self::assertTrue(Temperature::celsius('57.2')->isBelow($hot));
        self::assertTrue(Temperature::celsius('57.3')->isAbove($hot));
        $cold = Threshold::ofOne(Temperature::celsius('5'));
        self::assertTrue(
            Temperature::fahrenheit('41')->isAtMost($cold) && Temperature::fahrenheit('41')->isAtLeast($cold),
        );
        self::assertTrue(Temperature::fahrenheit('41.1')->isAbove($cold));
    }

    #[DataProvider('times')]
    public function testReadsATimeOrRefusesIt(string $raw, ?string $utc): void
    {
        if ($utc === null) {
            $this->expectException(MalformedInstant::class);
        }
        self::assertSame($utc, Instant::parse($raw)->rfc3339());
    }

    /** @return iterable<array{string, string|null}> */
    public static function times(): iterable
    {
        yield ['2026-05-02T11:00:00-06:00', '2026-05-02T17:00:00Z'];
        yield ['2026-05-02t11:00:00z', '2026-05-02T11:00:00Z'];
        yield ['2024-02-29T23:59:59+14:00', '2024-02-29T09:59:59Z'];
        yield ['1969-12-31T23:59:59Z', '1969-12-31T23:59:59Z'];
        foreach (
            [
                '2026-02-29T00:00:00Z',
                '2026-05-02T11:00:00',
                '2026-05-02 11:00:00Z',
                '2026-05-02T24:00:00Z',
                '2026-13-01T00:00:00Z',
                '2026-00-10T00:00:00Z',
                '2026-05-02T11:00:00.5Z',
                '2026-05-02',
                '2026-05-02T11:60:00Z',
                '2026-05-02T11:00:00+24:00',
                "2026-05-02T11:00:00Z\n",
                '2026-04-31T00:00:00Z',
                'now',
            ] as $wrong
        ) {
            yield [$wrong, null];
        }
    }

    public function testTimesAgreeWithPhpOverTwoThousandYears(): void
    {
        for ($epoch = -50_000_000_000; $epoch < 60_000_000_000; $epoch += 98_765_432) {
            $written = gmdate('Y-m-d\TH:i:s\Z', $epoch);
            self::assertSame($epoch, Instant::parse($written)->epoch, $written);
        }
    }

    public function testADayBeginsWhenItDoesOnTheWall(): void
    {
        foreach (
            [
                'America/Denver',
                'Europe/London',
                'America/Havana',
                'Africa/Cairo',
                'America/Sao_Paulo',
                'Asia/Beirut',
                'Australia/Lord_Howe',
            ] as $name
        ) {
            $zone = TimeZone::named($name);
            $date = LocalDate::ofInstant(Instant::parse('2015-01-01T12:00:00Z'), $zone);
            for ($day = 0; $day < 1500; ++$day) {
                $start = $date->plusDays($day)->startIn($zone);
                self::assertSame($date->days + $day, LocalDate::ofInstant($start, $zone)->days);
                self::assertLessThan(
                    $date->days + $day,
                    LocalDate::ofInstant(Instant::ofEpoch($start->epoch - 1), $zone)->days,
                );
            }
        }
    }

    public function testAZoneIsKnownByItsName(): void
    {
        self::assertSame(
            -6 * 3600,
            TimeZone::named('America/Denver')->offsetAt(Instant::parse('2026-07-01T00:00:00Z')),
        );
        $this->expectException(UnknownTimeZone::class);
        $this->expectExceptionMessage('IANA name');
        TimeZone::named('Mountain');
    }

    #[DataProvider('months')]
    public function testMonthsLaterIsTheSameDayOrTheLastOfAShorterMonth(string $date, int $months, string $then): void
    {
        self::assertSame($then, LocalDate::ofIso($date)?->plusMonths($months)->iso());
    }

    /** @return list<array{string, int, string}> */
    public static function months(): array
    {
        return [
            ['2026-11-25', 24, '2028-11-25'],
            ['2026-01-31', 1, '2026-02-28'],
            ['2028-01-31', 1, '2028-02-29'],
            ['2028-02-29', 12, '2029-02-28'],
            ['2026-12-31', -1, '2026-11-30'],
            ['2026-12-15', 1, '2027-01-15'],
            ['2026-03-31', -13, '2025-02-28'],
            ['1970-01-01', 0, '1970-01-01'],
        ];
    }
}
