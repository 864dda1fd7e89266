<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

/** When something happens, as moments with weights; some of it may never. */
final readonly class Odds
{
    private const PARTS = 100;

    /** @var list<array{int|null, float}> in order, never last, the weights come to 1 */
    public array $moments;

    /** @param list<array{int|null, float}> $moments seconds since 1970, null for never, and weights */
    public function __construct(array $moments)
    {
        $all = array_sum(array_column($moments, 1));
        usort(
            $moments,
            static fn (array $one, array $other): int => ($one[0] ?? \PHP_INT_MAX) <=> ($other[0] ?? \PHP_INT_MAX),
        );
        $this->moments = array_map(static fn (array $one): array => [$one[0], $one[1] / $all], $moments);
    }

    /** @return int|null by when it has happened with this chance; null for never */
    public function by(float $chance): ?int
    {
        $sum = 0.0;
        foreach ($this->moments as [$at, $weight]) {
            $sum += $weight;
            if ($sum >= $chance) {
                return $at;
            }
        }

        return null;
    }

    /** The chance that it has not happened at a moment. */
    public function after(int $moment): float
    {
        $sum = 0.0;
        foreach ($this->moments as [$at, $weight]) {
            $sum += $at === null || $at > $moment ? $weight : 0.0;
        }

        return $sum;
    }

    /**
     * When the last of several has happened. They are taken as fully dependent: a cause that slows one slows the
     * others.
     *
     * @param list<self> $all
     */
    public static function slowest(array $all): ?self
    {
        if (!isset($all[1])) {
            return $all[0] ?? null;
        }
        $moments = [];
        for ($part = 1; $part < 2 * self::PARTS; $part += 2) {
            $by = array_map(static fn (self $one): ?int => $one->by($part / (2 * self::PARTS)), $all);
            $moments[] = [\in_array(null, $by, true) ? null : max($by), 1.0];
        }

        return new self($moments);
    }

    /** @return array{string, string} moments, the greatest number for never; and weights */
    public function __serialize(): array
    {
        $moments = array_map(static fn (array $one): int => $one[0] ?? \PHP_INT_MAX, $this->moments);

        return [pack('q*', ...$moments), pack('d*', ...array_column($this->moments, 1))];
    }

    /** @param array{string, string} $kept */
    public function __unserialize(array $kept): void
    {
        /** @var array<int, int> $moments */
        $moments = (array) unpack('q*', $kept[0]);
        /** @var array<int, float> $weights */
        $weights = (array) unpack('d*', $kept[1]);
        $this->moments = array_map(
            static fn (int $at, float $weight): array => [$at === \PHP_INT_MAX ? null : $at, $weight],
            array_values($moments),
            array_values($weights),
        );
    }
}
