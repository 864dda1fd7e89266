<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

/**
 * The unknowns as learned from this kitchen's past cooks, in the standard normal numbers of `ParameterSample`: their
 * offset from the prior, and their spread as a share of it.
 *
 * A fit gives the likeliest values of a cook, shrunk towards the prior by as much as its readings leave open. The
 * shrinking is undone, cooks whose readings determine more weigh more, and a weighted median is taken, so that one odd
 * cook changes little. The prior weighs as two fully determined cooks, and as one for the spread.
 */
final readonly class LearnedParameters
{
    /** The weight of the prior, in cooks. */
    private const USUAL = 2.0;
    private const APART = 1.0; // the same, for how far they are apart
    private const LEAST = 3; // cooks before they are heard at all
    private const SAYS = 0.1; // of an unknown, below which a cook says nothing of it
    private const CLOSEST = 0.35; // as a share of the prior's
    private const FARTHEST = 2.5; // normal numbers

    /** @param array<int, array{float, float}> $unknowns where it lies and how far apart, 1 as is usual, by unknown */
    public function __construct(public array $unknowns = [])
    {
    }

    /**
     * @param list<array<int, array{float, float}>> $shown of each cook: the likeliest, and how much of it the readings
     *     say, 0 to 1, by unknown
     *
     * @return self|null null where they are too few
     */
    public static function of(array $shown): ?self
    {
        if (\count($shown) < self::LEAST) {
            return null;
        }
        $unknowns = [];
        foreach (array_keys(array_replace(...$shown)) as $unknown) {
            $own = [];
            foreach ($shown as $cook) {
                [$likely, $said] = $cook[$unknown] ?? [0.0, 0.0];
                if ($said > self::SAYS) {
                    $own[] = [max(-self::FARTHEST, min(self::FARTHEST, $likely / $said)), $said];
                }
            }
            if (\count($own) >= self::LEAST) {
                $unknowns[$unknown] = self::together($own);
            }
        }
        ksort($unknowns);

        return $unknowns === [] ? null : new self($unknowns);
    }

    /** The same, as far apart as is usual. */
    public function asWide(): self
    {
        return new self(array_map(static fn (array $one): array => [$one[0], 1.0], $this->unknowns));
    }

    /** The combination of both; a fact that both know takes the other's value. */
    public function with(?self $other): self
    {
        return $other === null ? $this : new self($other->unknowns + $this->unknowns);
    }

    /**
     * @param non-empty-list<array{float, float}> $own where it lay, and how much of that was read
     *
     * @return array{float, float}
     */
    private static function together(array $own): array
    {
        $cooks = array_sum(array_column($own, 1));
        $middle = self::median($own);
        $apart = 0.0;
        foreach ($own as [$likely, $said]) {
            // Uncertainty of the readings is no difference between cooks.
            $apart += $said * max(0.0, min(1.0, ($likely - $middle) ** 2 - (1.0 - $said) / $said));
        }
        $squared = (self::APART + $apart) / (self::APART + $cooks);
        $spread = sqrt($squared * (1.0 + 1.0 / (self::USUAL + $cooks)));

        return [
            round(($middle * $cooks) / (self::USUAL + $cooks), 4),
            round(max(self::CLOSEST, min(1.0, $spread)), 4),
        ];
    }

    /** @param non-empty-list<array{float, float}> $weighed values and weights */
    private static function median(array $weighed): float
    {
        usort($weighed, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
        $half = array_sum(array_column($weighed, 1)) / 2;
        $sum = 0.0;
        foreach ($weighed as $n => [$value, $weight]) {
            $sum += $weight;
            if ($sum > $half + 1e-9) {
                return $value;
            }
            if ($sum > $half - 1e-9) {
                return ($value + ($weighed[$n + 1][0] ?? $value)) / 2;
            }
        }

        return $weighed[\count($weighed) - 1][0];
    }
}
