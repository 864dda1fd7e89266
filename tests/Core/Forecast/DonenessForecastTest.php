<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Forecast\DonenessForecast;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\Stall;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * Against meat by the physics: the stated range holds the true moment nine times in ten, and is narrower than a rule of
 * thumb.
 */
final class DonenessForecastTest extends TestCase
{
    /** The rule of thumb: 0.6 to 2 h a pound, in hours a kilogram. */
    private const THUMB = [1.3, 4.4];

    public function testTheRangeHoldsTheTruthNineTimesInTen(): void
    {
        $chance = new Randomizer(new Mt19937(20261125));
        $told = $held = $narrower = 0;
        for ($cook = 0; $cook < 80; ++$cook) {
            [$points, $end, $target, $pit, $wrappedAt, $kilograms] = self::cook($chance);
            foreach ($points as $index => $point) {
                if ($index % 2 !== 1) {
                    continue;
                }
                $window = DonenessForecast::of(
                    \array_slice($points, 0, $index + 1),
                    $target,
                    $pit,
                    $point->at >= $wrappedAt,
                );
                if ($window === null || ($point->at < $wrappedAt && $wrappedAt !== \PHP_INT_MAX)) {
                    continue;
                }
                ++$told;
                $held += $window->contains(Instant::ofEpoch($end)) ? 1 : 0;
                $narrower += $window->width()->seconds < 3600 * $kilograms * (self::THUMB[1] - self::THUMB[0]) ? 1 : 0;
            }
        }
        self::assertGreaterThan(300, $told);
        self::assertGreaterThanOrEqual(0.9, $held / $told, "$held of $told");
        self::assertGreaterThanOrEqual(
            0.5,
            $narrower / $told,
            "$narrower of $told are narrower than the rule of thumb",
        );
    }

    public function testItIsWiderInTheStallThanBeyondIt(): void
    {
        $before = DonenessForecast::of(self::points([0, 58], [30, 61], [60, 64]), 95, 121, false);
        $beyond = DonenessForecast::of(self::points([0, 82], [30, 85], [60, 88]), 95, 121, false);
        self::assertNotNull($before);
        self::assertNotNull($beyond);
        self::assertGreaterThan(3 * $beyond->width()->seconds, $before->width()->seconds);
    }

    /** @param list<array{int, float}> $readings */
    #[DataProvider('silences')]
    public function testSaysNothingWhereNothingCanBeSaid(array $readings, float $target, float $pit): void
    {
        self::assertNull(DonenessForecast::of(self::points(...$readings), $target, $pit, false));
    }

    /** @return iterable<string, array{list<array{int, float}>, float, float}> */
    public static function silences(): iterable
    {
        yield 'nothing read' => [[], 95, 121];
        yield 'two readings at once' => [[[0, 40.0], [5, 41.0]], 95, 121];
        yield 'falling' => [[[0, 70.0], [30, 69.0], [60, 67.0]], 95, 121];
        yield 'there already' => [[[0, 90.0], [30, 94.0], [60, 96.0]], 95, 121];
        yield 'a pit no hotter than the target' => [[[0, 60.0], [30, 64.0], [60, 68.0]], 95, 98];
    }

    /** @param list<array{int, float}> $readings */
    #[DataProvider('plateaus')]
    public function testRecognisesTheStall(?int $from, bool $isOpen, array $readings): void
    {
        $stall = Stall::in(self::points(...$readings));
        self::assertSame($from === null ? null : 60 * $from, $stall?->from->epoch);
        if ($stall !== null) {
            self::assertSame($isOpen, $stall->isOpen);
        }
    }

    /** @return iterable<string, array{int|null, bool, list<array{int, float}>}> */
    public static function plateaus(): iterable
    {
        yield 'a plateau' => [90, true, [[0, 40.0], [60, 62.0], [90, 68.0], [120, 69.0], [180, 70.5]]];
        yield 'too short yet' => [null, false, [[0, 40.0], [60, 62.0], [90, 68.0], [120, 69.0]]];
        yield 'rising all along' => [null, false, [[0, 40.0], [60, 58.0], [120, 70.0], [180, 80.0]]];
        yield 'over' => [90, false, [[0, 40.0], [90, 68.0], [180, 70.0], [240, 79.0]]];
        yield 'slow, but cold' => [null, false, [[0, 20.0], [60, 22.0], [120, 24.0]]];
        yield 'slow, but nearly done' => [null, false, [[0, 92.0], [60, 93.0], [120, 94.0]]];
        yield 'falling back a little' => [0, true, [[0, 72.0], [30, 71.0], [60, 71.5]]];
        yield 'nothing' => [null, false, []];
    }

    /**
     * @return array{list<Point>, int, float, float, int, float} readings, when it truly arrived, target, pit, when it
     *     was wrapped, kilograms
     */
    private static function cook(Randomizer $chance): array
    {
        $between = static fn (float $low, float $high): float => $low
            + (($high - $low) * $chance->getInt(0, 1_000_000)) / 1_000_000;
        do {
            $radius = $between(0.03, 0.065);
            $pit = $between(107, 138);
            $target = $between(75, min(95, $pit - 14));
            $wrap = $chance->getInt(0, 1) === 1 ? $between(65, 75) : 200.0;
            $meat = new Meat($chance->getInt(0, 2), $radius, $between(2, 7), $between(0.05, 0.26));
            $transfer = $between(10, 20);
            $drying = 3600 * $between(3, 8);
            $points = [];
            $wrappedAt = \PHP_INT_MAX;
            $next = 3600.0;
            while ($meat->core() < $target && $meat->seconds < 100_000) {
                $meat->stay(300, $pit, $transfer, $drying);
                if ($meat->core() > $wrap && $wrappedAt === \PHP_INT_MAX) {
                    $wrappedAt = (int) $meat->seconds;
                    $meat->wetness = 0.005;
                }
                if ($meat->seconds >= $next && $meat->core() < $target) {
                    $points[] = Point::of(
                        (int) $meat->seconds,
                        Temperature::ofTenths(
                            (int) round(10 * ($meat->core() + $between(-0.4, 0.4))),
                            TemperatureUnit::Celsius,
                        ),
                    );
                    $next = $meat->seconds + $between(900, 2700);
                }
            }
        } while ($meat->core() < $target || \count($points) < 6);

        return [$points, (int) $meat->seconds, $target, $pit, $wrappedAt, ((2 * $radius) / 0.1) ** 2 * 2.4];
    }

    /**
     * @param array{int, float} ...$readings minutes, °C
     *
     * @return list<Point>
     */
    private static function points(array ...$readings): array
    {
        return array_map(
            static fn (array $reading): Point => Point::of(
                60 * $reading[0],
                Temperature::ofTenths((int) round(10 * $reading[1]), TemperatureUnit::Celsius),
            ),
            array_values($readings),
        );
    }
}
