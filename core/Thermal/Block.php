<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/**
 * A block of meat, or a short cylinder, by the product rule: the middle's remaining share is the product of the shares
 * of slabs in its three extents, or of a cylinder and the slab between its ends (Newman 1936; Carslaw and Jaeger § 5.6;
 * four terms of each series). `like()` gives the one-dimensional body whose middle warms and cools alike, to 4.5 % of
 * the way: its share is the same early and late.
 */
final readonly class Block
{
    private const TERMS = 4;
    /** Between which figures further roots of a cylinder lie: zeros of J₁ and of J₀. */
    private const BETWEEN = [[3.8317, 5.5201], [7.0156, 8.6537], [10.1735, 11.7915]];
    /** The share, by the slowest terms of the slabs, at which both agree. */
    private const EARLY = 0.7;
    private const LATE = 1.6;
    private const UNFELT = 0.08;
    /** Of the first root where the surface is as warm as the air, of a slab, a cylinder and a ball: π/2, 2.4048, π. */
    private const ROOTS = [1.5708, 2.4048, 3.1416];
    private const BENDS = [2.139, 2.238, 2.314];

    /**
     * @param non-empty-list<array{float, 0|1}> $parts m from the middle to the surface, and the power with which the
     *     area grows there: 0 for a slab, 1 for a cylinder
     */
    private function __construct(private array $parts)
    {
    }

    /** @param float $a m from the middle to the nearest faces, $b and $c to the others */
    public static function of(float $a, float $b, float $c): self
    {
        return new self([[$a, 0], [$b, 0], [$c, 0]]);
    }

    /** @param float $half m of half its length; no less than the radius */
    public static function cylinder(float $radius, float $half): self
    {
        return new self([[$radius, 1], [$half, 0]]);
    }

    /**
     * @param float $transfer W/(m² K) at its surface
     * @param float $conductivity W/(m K)
     *
     * @return array{float, float} m from the middle to the surface, and the power its area grows with: 0 slab, 1
     *     cylinder, 2 ball, or between
     */
    public function like(float $transfer, float $conductivity): array
    {
        $slabs = [];
        $slowest = 0.0;
        foreach ($this->parts as [$half, $power]) {
            $slabs[] = $terms = self::terms($half, $power, ($transfer * $half) / $conductivity);
            $slowest += $terms[0][0];
        }
        // In s by diffusivity, as the rates are in 1/m².
        [$at, $later] = [self::EARLY / $slowest, self::LATE / $slowest];
        [$left, $less] = [self::left($slabs, $at), self::left($slabs, $later)];
        // As if it had gone so fast from the beginning.
        $lag = $left * exp((log($left / $less) * $at) / ($later - $at));
        [$between, $then] = [($at + $later) / 2, sqrt($left * $less)];
        $half = $this->parts[0][0];
        $shape = 0.0;
        for ($round = 0; $round < 4; ++$round) {
            $biot = ($transfer * $half) / $conductivity;
            $firsts = [self::first(0, $biot), self::first(1, $biot), self::first(2, $biot)];
            $shape = self::inverse(array_column($firsts, 1), $lag);
            $share = self::between(array_column($firsts, 1), $shape);
            $half = self::between(array_column($firsts, 0), $shape) * sqrt($between / log($share / $then));
        }

        return [$half, $shape];
    }

    /**
     * @param list<non-empty-list<array{float, float}>> $slabs terms of each
     *
     * @return float of the way, at a moment
     */
    private static function left(array $slabs, float $at): float
    {
        $left = 1.0;
        foreach ($slabs as $terms) {
            // So early nothing has come to its middle yet, and a series would need more terms.
            if ($terms[0][0] * $at < self::UNFELT) {
                continue;
            }
            $its = 0.0;
            foreach ($terms as [$speed, $share]) {
                $its += $share * exp(-$speed * $at);
            }
            $left *= $its;
        }

        return $left;
    }

    /**
     * The middle of a slab or a cylinder in series: roots of x tan x, or of x J₁(x) / J₀(x), that are Biot's number.
     *
     * @return non-empty-list<array{float, float}> of each term how fast it goes, 1/m², and how much of the way it has
     */
    private static function terms(float $half, int $power, float $biot): array
    {
        [$root, $share] = self::first($power, $biot);
        $terms = [[($root / $half) ** 2, $share]];
        for ($term = 1; $term < self::TERMS; ++$term) {
            $root = $power === 0 ? self::furtherOfSlab($term, $biot) : self::furtherOfCylinder($term, $biot);
            $terms[] = [($root / $half) ** 2, self::share($power, $root)];
        }

        return $terms;
    }

    private static function furtherOfSlab(int $term, float $biot): float
    {
        $root = $term * \M_PI + 0.5;
        for ($round = 0; $round < 3; ++$round) {
            $root = $term * \M_PI + atan($biot / $root);
        }

        return $root;
    }

    private static function furtherOfCylinder(int $term, float $biot): float
    {
        [$low, $high] = self::BETWEEN[$term - 1];
        for ($round = 0; $round < 12; ++$round) {
            $root = ($low + $high) / 2;
            [$zero, $one] = self::bessel($root);
            [$low, $high] = ($root * $one) / $zero < $biot ? [$root, $high] : [$low, $root];
        }

        return ($low + $high) / 2;
    }

    /** How much of the way a term of the middle of a slab, a cylinder or a ball begins with. */
    private static function share(int $power, float $root): float
    {
        [$sin, $cos] = [sin($root), cos($root)];
        [$zero, $one] = $power === 1 ? self::bessel($root) : [0.0, 0.0];

        return match ($power) {
            0 => (2.0 * $sin) / ($root + $sin * $cos),
            1 => (2.0 * $one) / ($root * ($zero ** 2 + $one ** 2)),
            default => (2.0 * ($sin - $root * $cos)) / ($root - $sin * $cos),
        };
    }

    /**
     * The first term in series of the middle of a slab, a cylinder or a ball.
     *
     * @return array{float, float} its root (Yovanovich 1996: within 0.4 %), and how much of the way it begins with
     */
    private static function first(int $power, float $biot): array
    {
        $most = self::ROOTS[$power];
        $bends = self::BENDS[$power];
        $root = $most / (1.0 + ($most / sqrt(($power + 1.0) * $biot)) ** $bends) ** (1.0 / $bends);

        return [$root, self::share($power, $root)];
    }

    /** @return array{float, float} J₀ and J₁ up to 12: their power series */
    private static function bessel(float $x): array
    {
        $y = ($x * $x) / 4;
        $term = $zero = 1.0;
        $one = 1.0;
        for ($n = 1; abs($term) > 1e-7 || $n < 4; ++$n) {
            $term *= -$y / ($n * $n);
            $zero += $term;
            $one += $term / ($n + 1);
        }

        return [$zero, ($x / 2) * $one];
    }

    /** @param list<float> $of for a slab, a cylinder and a ball: a parabola through them */
    private static function between(array $of, float $power): float
    {
        [$linear, $square] = self::parabola($of);

        return $of[0] + $power * $linear + $power ** 2 * $square;
    }

    /** @param list<float> $of for a slab, a cylinder and a ball, rising: where a parabola through them has a value */
    private static function inverse(array $of, float $value): float
    {
        [$linear, $square] = self::parabola($of);
        $away = $value - $of[0];
        $power = abs($square) < 1e-9
            ? $away / $linear
            : (sqrt(max(0.0, $linear ** 2 + 4 * $square * $away)) - $linear) / (2 * $square);

        return max(0.0, min(2.0, $power));
    }

    /**
     * @param list<float> $of
     *
     * @return array{float, float}
     */
    private static function parabola(array $of): array
    {
        [$slab, $cylinder, $ball] = $of;

        return [2 * $cylinder - 1.5 * $slab - 0.5 * $ball, 0.5 * $ball + 0.5 * $slab - $cylinder];
    }
}
