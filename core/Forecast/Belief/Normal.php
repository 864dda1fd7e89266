<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

/** The normal distribution. */
final readonly class Normal
{
    private const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 53];
    private const SKIPPED = 20; // its first numbers go together in the greater primes

    /** The normal number that so much lies below; Acklam's approximation, right to a billionth of its size. */
    public static function quantile(float $part): float
    {
        $part = min(1.0 - 1e-9, max(1e-9, $part));
        if ($part < 0.02425 || $part > 1.0 - 0.02425) {
            $q = sqrt(-2.0 * log($part < 0.5 ? $part : 1.0 - $part));
            $tail = (((((-7.784894002430293e-3 * $q - 3.223964580411365e-1) * $q - 2.400758277161838) * $q
                - 2.549732539343734) * $q + 4.374664141464968) * $q + 2.938163982698783)
                / ((((7.784695709041462e-3 * $q + 3.224671290700398e-1) * $q + 2.445134137142996) * $q
                + 3.754408661907416) * $q + 1.0);

            return $part < 0.5 ? $tail : -$tail;
        }
        $q = $part - 0.5;
        $r = $q * $q;

        return ((((((-39.69683028665376 * $r + 220.9460984245205) * $r - 275.9285104469687) * $r + 138.357751867269)
            * $r - 30.66479806614716) * $r + 2.506628277459239) * $q)
            / (((((-54.47609879822406 * $r + 161.5858368580409) * $r - 155.6989798598866) * $r + 66.80131188771972)
            * $r - 13.28068155288572) * $r + 1.0);
    }

    /** @return list<float> independent normal numbers, the nth of Halton's sequence: one for each unknown */
    public static function numbers(int $n): array
    {
        $normal = [];
        foreach (self::PRIMES as $prime) {
            $part = 0.0;
            $share = 1.0;
            for ($left = $n + self::SKIPPED; $left > 0; $left = intdiv($left, $prime)) {
                $share /= $prime;
                $part += $share * ($left % $prime);
            }
            $normal[] = self::quantile($part);
        }

        return $normal;
    }
}
