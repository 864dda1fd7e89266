<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Thermal\Body;
use Verjuicer\Core\Thermal\Composition;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Core\Thermal\Surface;

/**
 * How likely a layer of meat passes the gates of cooling, by method, depth and cover, before it begins: of many ways it
 * may be, the part that does. A layer loses heat upwards and through what it lies on, as well as that lets it; how well
 * the air takes it, how warm that is, how wet the surface stays and how much air is between the pieces is not known.
 * Numbers are drawn by a fixed sequence (Halton's): the same question has the same answer.
 */
final readonly class CoolingOdds
{
    public const ENOUGH = 0.9;
    /** cm: what is asked for the deepest that passes. */
    public const DEPTHS = [1.0, 1.5, 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 7.5, 10.0];

    private const DRAWS = 48;
    private const PRIMES = [2, 3, 5, 7, 11];
    private const CELLS = 8;
    private const STEP = 300;
    private const GIVE = 1.0; // °C, of what somebody read
    private const LOAD = 1.0; // °C at the most that a warm load raises the air of a room

    /**
     * °C of the air, W/(m² K) at the surface (air and radiation; through the pan in ice), and how much of that leaves
     * downwards as well. Ranges of practice, not of a code: a rack in a walk-in, a rolling chiller, a sink of ice. A
     * freezer is not among them: what freezes at its surface gives off heat that is not reckoned here.
     */
    private const METHODS = [
        'walk_in' => [[0.5, 3.5], [7.0, 15.0], [0.3, 0.9]],
        'shallow_pans' => [[0.5, 3.5], [10.0, 20.0], [0.6, 0.95]],
        'blast_chiller' => [[-3.0, 2.0], [18.0, 45.0], [0.4, 0.9]],
        'ice_bath' => [[0.0, 2.0], [80.0, 250.0], [0.05, 0.25]],
        'counter' => [[18.0, 28.0], [6.0, 12.0], [0.3, 0.9]],
    ];

    /**
     * @param float $first 0 to 1: the middle is passed in time
     * @param float $all the cold is
     */
    private function __construct(public float $first, public float $all, public float $both)
    {
    }

    /** @return list<Holding> of which anything is known */
    public static function methods(): array
    {
        return array_map(Holding::from(...), array_keys(self::METHODS));
    }

    /**
     * @param Holding $method one of methods()
     * @param float $depth m
     * @param float|null $around °C of the air, or of the water, as somebody read it; null for what is usual
     */
    public static function of(
        Holding $method,
        float $depth,
        bool $isCovered,
        ?float $around,
        CoolingGates $gates,
    ): self {
        $properties = MeatProperties::of(Composition::marbled());
        $passed = [0, 0, 0];
        for ($draw = 1; $draw <= self::DRAWS; ++$draw) {
            [$below, $takes, $warm, $wet, $loose] = array_map(
                static fn (int $prime): float => self::part($draw, $prime),
                self::PRIMES,
            );
            $body = Body::even(
                $properties,
                self::half($method, $depth, $below, $loose),
                0.0,
                $gates->hot,
                self::CELLS,
            );
            $surface = self::surface($method, $isCovered, $around, $takes, $warm, $wet);
            [$first, $all] = self::passes($body, $surface, $gates);
            $passed[0] += (int) $first;
            $passed[1] += (int) $all;
            $passed[2] += (int) ($first && $all);
        }

        return new self($passed[0] / self::DRAWS, $passed[1] / self::DRAWS, $passed[2] / self::DRAWS);
    }

    /** @return float|null m: the deepest of DEPTHS that passes both gates nine times in ten; null where none does */
    public static function deepest(Holding $method, bool $isCovered, ?float $around, CoolingGates $gates): ?float
    {
        $low = -1;
        $high = \count(self::DEPTHS);
        while ($high - $low > 1) {
            $middle = intdiv($low + $high, 2);
            $odds = self::of($method, self::DEPTHS[$middle] / 100, $isCovered, $around, $gates);
            if ($odds->both >= self::ENOUGH) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $low < 0 ? null : self::DEPTHS[$low] / 100;
    }

    /** @return array{array{float, float}, array{float, float}, array{float, float}} */
    private static function ranges(Holding $method): array
    {
        return self::METHODS[$method->value] ?? throw new \LogicException("Nothing is known of $method->value.");
    }

    /** From the surface that takes most to the place that is warmest for longest, m, as if the meat were solid. */
    private static function half(Holding $method, float $depth, float $below, float $loose): float
    {
        [, , [$least, $most]] = self::ranges($method);

        // Pulled meat has air in it: it conducts between seven and ten tenths of what solid meat does.
        return $depth / (1.0 + $least + ($most - $least) * $below) / sqrt(0.7 + 0.3 * $loose);
    }

    private static function surface(
        Holding $method,
        bool $isCovered,
        ?float $around,
        float $takes,
        float $warm,
        float $wet,
    ): Surface {
        [[$coldest, $warmest], [$least, $most]] = self::ranges($method);
        $isAir = $method !== Holding::IceBath;
        $transfer = $least * ($most / $least) ** $takes;
        $air = $around === null
            ? $coldest + ($warmest - $coldest) * $warm
            : $around + self::GIVE * (2.0 * $warm - 1.0);
        $air += $isAir && $method !== Holding::BlastChiller ? self::LOAD * $warm : 0.0;
        // A lid keeps the water in, and the air off: the less of both.
        if ($isCovered && $isAir) {
            return Surface::dry($air, 0.6 * $transfer);
        }

        return $isAir
            ? new Surface($air, $transfer, 0.5 * $transfer, 700.0, 0.2 + 0.6 * $wet, 1.5)
            : Surface::dry($air, $transfer);
    }

    /** @return array{bool, bool} */
    private static function passes(Body $body, Surface $surface, CoolingGates $gates): array
    {
        $first = $body->middle() <= $gates->middle;
        for ($at = self::STEP; $at <= $gates->all; $at += self::STEP) {
            $body->step((float) self::STEP, $surface);
            $warmest = $body->middle();
            if ($at <= $gates->first && $warmest <= $gates->middle) {
                $first = true;
            }
            if ($warmest <= $gates->cold) {
                return [$first, true];
            }
        }

        return [$first, false];
    }

    /** The nth of Halton's sequence, 0 to 1. */
    private static function part(int $n, int $prime): float
    {
        $part = 0.0;
        $share = 1.0;
        for ($left = $n; $left > 0; $left = intdiv($left, $prime)) {
            $share /= $prime;
            $part += $share * ($left % $prime);
        }

        return $part;
    }
}
