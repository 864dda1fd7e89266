<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\Picture\TemperatureAxis;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;

/** Where things are drawn: time to the right, heat up. */
final class AxisTest extends TestCase
{
    public function testTimeRunsToTheRight(): void
    {
        $axis = new TimeAxis(Instant::ofEpoch(1000), Instant::ofEpoch(2000), 50, 150);
        self::assertSame(
            [50.0, 100.0, 150.0, 200.0],
            array_map(static fn (int $at): float => $axis->x(Instant::ofEpoch($at)), [1000, 1500, 2000, 2500]),
        );
        self::assertSame(
            [50.0, 150.0],
            [$axis->clampedX(Instant::ofEpoch(0)), $axis->clampedX(Instant::ofEpoch(9000))],
        );
        self::assertSame(
            [true, true, false, false],
            array_map(static fn (int $at): bool => $axis->shows(Instant::ofEpoch($at)), [1000, 2000, 999, 2001]),
        );
    }

    public function testAnAxisOfNoLengthDividesByNothing(): void
    {
        $moment = Instant::ofEpoch(1000);
        self::assertSame(50.0, (new TimeAxis($moment, $moment, 50, 150))->x($moment));
    }

    /** @param list<string> $labels */
    #[DataProvider('hours')]
    public function testMarksRoundHoursOfTheWall(string $zone, string $from, string $to, int $most, array $labels): void
    {
        $axis = new TimeAxis(Instant::parse($from), Instant::parse($to), 0, 680);
        $hours = $axis->hours(TimeZone::named($zone), new MeasureFormatter(), $most);
        self::assertSame($labels, array_column($hours, 'label'));
        foreach ($hours as $hour) {
            self::assertGreaterThanOrEqual(0, $hour['x']);
            self::assertSame($hour['label'] === '0', $hour['is_midnight']);
        }
    }

    /** @return iterable<string, array{string, string, string, int, list<string>}> */
    public static function hours(): iterable
    {
        yield 'half a day' => [
            'America/Denver',
            '2026-11-25T01:30:00Z',
            '2026-11-25T09:30:00Z',
            13,
            ['19', '20', '21', '22', '23', '0', '1', '2'],
        ];
        yield 'every second hour where there is no room' => [
            'America/Denver',
            '2026-11-25T01:30:00Z',
            '2026-11-25T09:30:00Z',
            5,
            ['20', '22', '0', '2'],
        ];
        yield 'a zone of half hours' => [
            'Asia/Kolkata',
            '2026-11-25T00:10:00Z',
            '2026-11-25T03:40:00Z',
            13,
            ['6', '7', '8', '9'],
        ];
        yield 'a zone of three quarters' => [
            'Asia/Kathmandu',
            '2026-11-25T00:10:00Z',
            '2026-11-25T02:40:00Z',
            13,
            ['6', '7', '8'],
        ];
        yield 'the clocks go back: one hour comes twice' => [
            'America/Denver',
            '2026-11-01T06:30:00Z',
            '2026-11-01T10:30:00Z',
            13,
            ['1', '1', '2', '3'],
        ];
        yield 'the clocks go forward: one hour is missing' => [
            'America/Denver',
            '2026-03-08T07:30:00Z',
            '2026-03-08T11:30:00Z',
            13,
            ['1', '3', '4', '5'],
        ];
    }

    #[DataProvider('heights')]
    public function testHotIsUpInEitherUnit(string $temperature, float $y): void
    {
        $axis = new TemperatureAxis(Temperature::fahrenheit('32'), Temperature::fahrenheit('212'), 0, 180);
        self::assertSame($y, $axis->y(Temperature::parse($temperature, TemperatureUnit::Fahrenheit)));
    }

    /** @return iterable<array{string, float}> */
    public static function heights(): iterable
    {
        yield ['212', 0.0];
        yield ['32', 180.0];
        yield ['122', 90.0];
        yield ['50c', 90.0];
        yield ['100c', 0.0];
        yield ['500', 0.0];
        yield ['-20', 180.0];
    }
}
