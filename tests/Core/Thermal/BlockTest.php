<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Thermal;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Thermal\Block;

/** A block or short cylinder, against the product of series: the body in one direction that stands for it. */
final class BlockTest extends TestCase
{
    private const CONDUCTIVITY = 0.48;

    public function testAWideOneIsASlabALongSquareOneNearlyACylinderAndACubeNearlyABall(): void
    {
        foreach ([3.0, 15.0, 200.0] as $transfer) {
            [$half, $shape] = Block::of(0.02, 2.0, 2.0)->like($transfer, self::CONDUCTIVITY);
            self::assertEqualsWithDelta([0.02, 0.0], [$half, $shape], 0.02);
        }
        // As something round that is a little thicker.
        [$half, $shape] = Block::of(0.02, 0.02, 2.0)->like(60.0, self::CONDUCTIVITY);
        self::assertEqualsWithDelta(0.0216, $half, 0.0002);
        self::assertEqualsWithDelta(1.0, $shape, 0.05);
        [$half, $shape] = Block::cylinder(0.02, 2.0)->like(15.0, self::CONDUCTIVITY);
        self::assertEqualsWithDelta(0.02, $half, 0.0003);
        self::assertEqualsWithDelta(1.0, $shape, 0.08);
        [$half, $shape] = Block::of(0.04, 0.04, 0.04)->like(15.0, self::CONDUCTIVITY);
        self::assertEqualsWithDelta(0.046, $half, 0.0005);
        self::assertEqualsWithDelta(2.0, $shape, 0.05);
    }

    /** @return iterable<string, array{array{float, float, float}, float}> half extents in mm, W/(m² K) */
    public static function blocks(): iterable
    {
        foreach ([[40, 40, 40], [40, 55, 90], [30, 60, 75], [25, 90, 100]] as $halves) {
            foreach ([8.0, 15.0, 60.0, 400.0] as $transfer) {
                yield implode(' × ', $halves)." mm, $transfer W" => [$halves, $transfer];
            }
        }
    }

    /**
     * The middle of a block by the product rule, its slabs by twelve terms in series, and of the body that stands for
     * it by as many of a generalised one: from a tenth of the way on, within so much of the way.
     *
     * @param array{float, float, float} $halves
     */
    #[DataProvider('blocks')]
    public function testTheMiddleFollowsTheProductOfItsSlabs(array $halves, float $transfer): void
    {
        $meters = array_map(static fn (float $mm): float => $mm / 1000, $halves);
        [$like, $shape] = Block::of(...$meters)->like($transfer, self::CONDUCTIVITY);
        $body = self::body($shape, ($transfer * $like) / self::CONDUCTIVITY, 0.04, 80);
        $off = 0.0;
        foreach ($body as [$fourier, $left]) {
            $product = 1.0;
            foreach ($meters as $half) {
                $product *= self::slab(($transfer * $half) / self::CONDUCTIVITY, $fourier * ($like / $half) ** 2);
            }
            if ($product < 0.9 && $product > 0.03) {
                $off = max($off, abs($left - $product));
            }
        }
        self::assertLessThan(0.045, $off);
    }

    /** Of a slab's middle, how much of the way is left: the series. */
    private static function slab(float $biot, float $fourier): float
    {
        $left = 0.0;
        for ($term = 0; $term < 12; ++$term) {
            [$low, $high] = [$term * \M_PI + 1e-9, $term * \M_PI + \M_PI / 2];
            for ($step = 0; $step < 60; ++$step) {
                $middle = ($low + $high) / 2;
                if ($middle * sin($middle) - $biot * cos($middle) < 0.0 === ($term % 2 === 0)) {
                    $low = $middle;
                } else {
                    $high = $middle;
                }
            }
            $root = ($low + $high) / 2;
            $left += ((4 * sin($root)) / (2 * $root + sin(2 * $root))) * exp(-($root ** 2) * $fourier);
        }

        return $left;
    }

    /**
     * The same of a body whose area grows with a power: explicit finite differences.
     *
     * @return list<array{float, float}> time by half thickness squared and diffusivity, and how much of the way is left
     */
    private static function body(float $shape, float $biot, float $every, int $times): array
    {
        $cells = 40;
        $now = array_fill(0, $cells, 1.0);
        $width = 1 / $cells;
        $step = 0.2 * $width ** 2;
        $found = [];
        $at = 0.0;
        for ($time = 1; $time <= $times; ++$time) {
            for (; $at < $time * $every; $at += $step) {
                $flows = [0.0];
                for ($cell = 1; $cell < $cells; ++$cell) {
                    $flows[] = ($cell * $width) ** $shape * ($now[$cell] - $now[$cell - 1]) / $width;
                }
                $flows[] = -$now[$cells - 1] / ($width / 2 + 1 / $biot);
                foreach ($now as $cell => $left) {
                    $power = $shape + 1;
                    $volume = ((($cell + 1) * $width) ** $power - ($cell * $width) ** $power) / $power;
                    $now[$cell] = $left + ($step * ($flows[$cell + 1] - $flows[$cell])) / $volume;
                }
            }
            $found[] = [$at, (9 * $now[0] - $now[1]) / 8];
        }

        return $found;
    }
}
