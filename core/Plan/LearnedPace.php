<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/**
 * The pace of this kitchen's past cooks of a product relative to the usual: slower or faster, and less spread. The
 * usual weighs as much as a few cooks, so that two odd ones change little; medians, so that one wrong time changes
 * nothing.
 */
final readonly class LearnedPace
{
    /** The weight of the usual, in cooks. */
    private const USUAL = 3;
    private const LEAST = 3; // cooks before they are heard at all
    private const SPREAD = 1.4826; // of the median distance, a standard deviation
    private const CLOSEST = 0.35; // as a share of the usual

    /**
     * @param float $factor of the likely time
     * @param float $spread of the usual distance from it
     * @param int $cooks it was learned from; 0 for the usual
     */
    private function __construct(public float $factor, public float $spread, public int $cooks)
    {
    }

    public static function usual(): self
    {
        return new self(1.0, 1.0, 0);
    }

    /** @param list<array{int, Duration}> $cooks seconds each took, and the expected duration */
    public static function learnt(array $cooks): self
    {
        $ratios = $spreads = [];
        foreach ($cooks as [$took, $expected]) {
            [$early, $likely, $late] = [$expected->by(0.16), $expected->by(0.5), $expected->by(0.84)];
            if ($took > 0 && $early > 0 && $likely > 0 && $late > $early) {
                $ratios[] = log($took / $likely);
                $spreads[] = log($late / $early) / 2;
            }
        }
        $count = \count($ratios);
        if ($count < self::LEAST) {
            return self::usual();
        }
        $middle = self::median($ratios);
        $usual = self::median($spreads);
        $own = self::SPREAD
            * self::median(array_map(static fn (float $one): float => abs($one - $middle), $ratios));
        $both = sqrt((self::USUAL * $usual ** 2 + $count * $own ** 2) / (self::USUAL + $count));

        return new self(
            exp(($middle * $count) / ($count + self::USUAL)),
            max(self::CLOSEST, min(1.0, $both / $usual)),
            $count,
        );
    }

    /** @param list<float> $values */
    private static function median(array $values): float
    {
        sort($values);
        $half = intdiv(\count($values), 2);

        return \count($values) % 2 === 1 ? $values[$half] : ($values[$half - 1] + $values[$half]) / 2;
    }
}
