<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/**
 * What lies between the earliest and the latest of a range that holds nine times in ten: the time that is left is taken
 * as log-normal, so that its middle is the geometric one.
 */
final readonly class LikelyTime
{
    private const TAIL = 1.645; // standard deviations from the middle to a twentieth
    private const HORIZON = 14 * 86_400;

    private function __construct(private int $from, private float $middle, private float $spread)
    {
    }

    /** @return self|null null where it may never happen, or has */
    public static function between(Instant $now, Instant $earliest, ?Instant $latest): ?self
    {
        if ($latest === null) {
            return null;
        }
        $least = log(max(60, $earliest->epoch - $now->epoch));
        $most = log(max(60, $latest->epoch - $now->epoch));

        return new self($now->epoch, ($least + $most) / 2, max(0.01, ($most - $least) / (2 * self::TAIL)));
    }

    public function likely(): Instant
    {
        return Instant::ofEpoch($this->from + (int) round(exp($this->middle)));
    }

    /** 0 to 1: the chance that it happens after a moment. */
    public function lateFor(Instant $deadline): float
    {
        $left = $deadline->epoch - $this->from;

        return $left <= 0 ? 1.0 : 1.0 - self::below((log($left) - $this->middle) / $this->spread);
    }

    public static function isWithinSight(?Instant $at, Instant $now): bool
    {
        return $at !== null && $at->epoch - $now->epoch <= self::HORIZON;
    }

    /** The part of a normal distribution below a number; Abramowitz and Stegun 7.1.26, right to 1.5e-7. */
    private static function below(float $z): float
    {
        $x = abs($z) / \M_SQRT2;
        $t = 1.0 / (1.0 + 0.3275911 * $x);
        $tail = $t * (0.254829592 + $t * (-0.284496736 + $t * (1.421413741 + $t * (-1.453152027 + $t * 1.061405429))))
            * exp(-$x * $x);

        return $z < 0 ? $tail / 2 : 1.0 - $tail / 2;
    }
}
