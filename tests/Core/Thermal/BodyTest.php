<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Thermal;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Thermal\Body;
use Verjuicer\Core\Thermal\Composition;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Core\Thermal\Surface;

/** Meat as physics, against solutions in series and against itself on a finer grid. */
final class BodyTest extends TestCase
{
    private const K = 0.48;
    private const C = 3.6e6;
    private const HALF = 0.04;

    /** @var array<string, list<array{float, float}>> */
    private static array $roots = [];

    #[DataProvider('shapes')]
    public function testFollowsTheSolutionInSeriesToHalfAPercent(float $shape, float $biot): void
    {
        $body = Body::even(MeatProperties::constant(self::K, self::C), self::HALF, $shape, 5.0, 14);
        $surface = Surface::dry(105.0, ($biot * self::K) / self::HALF);
        for ($second = 60; $second <= 4 * 3600; $second += 60) {
            $body->step(60.0, $surface);
            if ($second % 900 === 0) {
                $fourier = (self::K / self::C) * $second / self::HALF ** 2;
                self::assertEqualsWithDelta(
                    105.0 - 100.0 * self::series($shape, $biot, $fourier),
                    $body->middle(),
                    0.5,
                    "after $second s",
                );
            }
        }
    }

    /** @return iterable<string, array{float, float}> */
    public static function shapes(): iterable
    {
        foreach (['slab' => 0.0, 'cylinder' => 1.0, 'ball' => 2.0] as $name => $shape) {
            foreach ([0.3, 1.0, 4.0, 20.0] as $biot) {
                yield "$name, Biot $biot" => [$shape, $biot];
            }
        }
    }

    public function testWhatGoesInThroughTheSurfaceIsWhatIsInside(): void
    {
        foreach ([[0.0, \INF], [0.7, 800.0], [1.4, \INF], [2.0, 300.0]] as [$shape, $supply]) {
            $body = Body::even(MeatProperties::of(Composition::marbled()), 0.045, $shape, 4.0, 12, 83_500.0);
            $before = $body->heat();
            $surface = new Surface(115.0, 22.0, 13.0, 3500.0, 0.4, 1.0, supply: $supply);
            for ($step = 0; $step < 360; ++$step) {
                $body->step(60.0, $surface);
            }
            self::assertEqualsWithDelta(1.0, ($body->heat() - $before) / $body->takenIn, 0.001, "shape $shape");
        }
    }

    #[DataProvider('courses')]
    public function testAFinerGridChangesACrossingByLessThanAHundredth(Surface $surface, float $to): void
    {
        $coarse = $this->crossing($surface, $to, 12, 120.0);
        $fine = $this->crossing($surface, $to, 24, 60.0);
        self::assertEqualsWithDelta(1.0, $coarse / $fine, 0.01, "$coarse s and $fine s");
    }

    /** @return iterable<string, array{Surface, float}> */
    public static function courses(): iterable
    {
        yield 'a dry oven' => [Surface::dry(120.0, 18.0), 90.0];
        yield 'a smoker, through the stall' => [new Surface(115.0, 22.0, 13.0, 3500.0, 0.15, 1.0), 88.0];
        yield 'a smoker, where water reaches the surface slowly' => [
            new Surface(115.0, 14.0, 9.0, 3500.0, 0.75, 2.4, 1.9, 1000.0),
            88.0,
        ];
        yield 'a hot pit' => [new Surface(150.0, 28.0, 17.0, 4000.0, 0.3, 0.5), 92.0];
    }

    /** The stall falls out of it: a wet surface holds meat up in the pit, a wrapped one does not. */
    public function testAWetSurfaceStallsAndAWrappedOneDoesNot(): void
    {
        $hours = fn (float $wetness): float => (
            $this->crossing(new Surface(110.0, 20.0, 12.0, 3000.0, $wetness, 3.0), 80.0, 12, 120.0)
            - $this->crossing(new Surface(110.0, 20.0, 12.0, 3000.0, $wetness, 3.0), 68.0, 12, 120.0)
        ) / 3600.0;
        self::assertGreaterThan(3.0 * $hours(0.01), $hours(0.25));
    }

    /** What the air would take and what reaches the surface are in series: never more than either. */
    public function testWhatReachesTheSurfaceBoundsWhatItGivesOff(): void
    {
        $gives = static function (float $wetness, float $supply): float {
            $body = Body::even(MeatProperties::constant(self::K, self::C), self::HALF, 0.0, 60.0, 12);
            $body->step(1.0, new Surface(115.0, 14.0, 9.0, 3500.0, $wetness, 1e9, 1.0, $supply));

            return 2.35e6 * $body->givenOff;
        };
        $free = $gives(0.75, \INF);
        self::assertEqualsWithDelta($free, $gives(0.75, 1e9), 0.01 * $free);
        foreach ([50.0, 300.0, 1000.0, 4000.0] as $supply) {
            // The drier skin is warmer, and would give off a little more.
            $series = ($free * $supply) / ($free + $supply);
            self::assertGreaterThan($series, $gives(0.75, $supply));
            self::assertLessThan(min($free, $supply), $gives(0.75, $supply));
        }
        self::assertLessThan(1e-6, $gives(0.0, 1000.0));
    }

    public function testTheMiddleGoesOnRisingAfterTheHeat(): void
    {
        $body = Body::even(MeatProperties::of(Composition::lean()), 0.04, 1.0, 5.0, 12);
        while ($body->middle() < 60.0) {
            $body->step(60.0, new Surface(120.0, 20.0, 12.0, 3000.0, 0.1, 1.0));
        }
        $pulled = $body->middle();
        $highest = $pulled;
        for ($minute = 0; $minute < 60; ++$minute) {
            $body->step(60.0, Surface::dry(30.0, 3.0));
            $highest = max($highest, $body->middle());
        }
        self::assertGreaterThan($pulled + 3.0, $highest);
        self::assertLessThan($pulled + 12.0, $highest);
    }

    public function testPropertiesAreThoseOfMeat(): void
    {
        $lean = MeatProperties::of(Composition::lean());
        $at = static fn (int $celsius): int => $celsius - MeatProperties::COLDEST;
        self::assertEqualsWithDelta(0.49, $lean->conductivity[$at(20)], 0.03); // W/(m K)
        self::assertEqualsWithDelta(3.75e6, $lean->capacity[$at(20)], 0.15e6); // J/(m³ K)
        self::assertGreaterThan($lean->capacity[$at(40)], $lean->capacity[$at(65)], 'proteins change');
        self::assertEqualsWithDelta(101_325.0, Body::saturation(100.0), 3000.0);
        self::assertEqualsWithDelta(2339.0, Body::saturation(20.0), 10.0);
    }

    private function crossing(Surface $surface, float $to, int $cells, float $seconds): float
    {
        $body = Body::even(MeatProperties::of(Composition::marbled()), 0.04, 0.8, 4.0, $cells, 83_500.0);
        $before = $body->middle();
        for ($at = $seconds; $at < 48 * 3600; $at += $seconds) {
            $body->step($seconds, $surface);
            $now = $body->middle();
            if ($now >= $to) {
                return $at - $seconds * ($now - $to) / ($now - $before);
            }
            $before = $now;
        }
        self::fail('it never gets there');
    }

    /**
     * The part of the way the middle has still to go: Carslaw and Jaeger, Conduction of Heat in Solids, chapters III,
     * VII and IX.
     */
    private static function series(float $shape, float $biot, float $fourier): float
    {
        $sum = 0.0;
        foreach (self::$roots["$shape $biot"] ??= self::roots($shape, $biot) as [$root, $share]) {
            $sum += $share * exp(-($root ** 2) * $fourier);
        }

        return $sum;
    }

    /**
     * Where heat that comes through the surface is heat that goes on inwards.
     *
     * @return list<array{float, float}> each with its share
     */
    private static function roots(float $shape, float $biot): array
    {
        $off = match ($shape) {
            0.0 => static fn (float $x): float => $x * sin($x) - $biot * cos($x),
            2.0 => static fn (float $x): float => (1 - $biot) * sin($x) - $x * cos($x),
            default => static fn (float $x): float => $x * self::bessel(1, $x) - $biot * self::bessel(0, $x),
        };
        $roots = [];
        $before = $off(1e-6);
        for ($x = 0.05; \count($roots) < 7; $x += 0.05) {
            $now = $off($x);
            if ($before * $now < 0) {
                [$low, $high] = [$x - 0.05, $x];
                for ($half = 0; $half < 40; ++$half) {
                    $middle = ($low + $high) / 2;
                    if ($off($middle) * $before > 0) {
                        $low = $middle;
                    } else {
                        $high = $middle;
                    }
                }
                $root = ($low + $high) / 2;
                $roots[] = [
                    $root,
                    match ($shape) {
                        0.0 => (4 * sin($root)) / (2 * $root + sin(2 * $root)),
                        2.0 => (4 * (sin($root) - $root * cos($root))) / (2 * $root - sin(2 * $root)),
                        default => (2 * self::bessel(1, $root))
                            / ($root * (self::bessel(0, $root) ** 2 + self::bessel(1, $root) ** 2)),
                    },
                ];
            }
            $before = $now;
        }

        return $roots;
    }

    private static function bessel(int $order, float $x): float
    {
        $sum = 0.0;
        for ($step = 0; $step < 80; ++$step) {
            $angle = (\M_PI * ($step + 0.5)) / 80;
            $sum += cos($order * $angle - $x * sin($angle));
        }

        return $sum / 80;
    }
}
