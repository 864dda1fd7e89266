<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Forecast\Belief\Odds;

/** How long something may take, as a hundred equally likely lengths; some of it may never end. */
final readonly class Duration
{
    private const PARTS = 100;
    /** A piece's own share of the squared spread between pieces; the rest is common to the batch. */
    private const OWN = 0.1;
    private const MOST_OWN = 12; // pieces: the spread of one already covers more of them

    /** @param list<int|null> $seconds a hundred, in order, null for never */
    private function __construct(private array $seconds)
    {
    }

    /** @param int $from the moment it begins, seconds since 1970 */
    public static function of(Odds $odds, int $from): self
    {
        $seconds = [];
        for ($part = 0; $part < self::PARTS; ++$part) {
            $at = $odds->by(($part + 0.5) / self::PARTS);
            $seconds[] = $at === null ? null : $at - $from;
        }

        return new self($seconds);
    }

    public static function exactly(int $seconds): self
    {
        return new self(array_fill(0, self::PARTS, $seconds));
    }

    /** @return int|null seconds in which it is over with this chance (0 to 1); null for never */
    public function by(float $chance): ?int
    {
        return $this->seconds[max(0, min(self::PARTS - 1, (int) floor(self::PARTS * $chance)))];
    }

    /** 0 to 1: the chance that it takes longer. */
    public function longerThan(int $seconds): float
    {
        $longer = 0;
        foreach ($this->seconds as $one) {
            $longer += (int) ($one === null || $one > $seconds);
        }

        return $longer / self::PARTS;
    }

    /** Until the last of several pieces that begin together has done it. */
    public function ofLast(int $pieces): self
    {
        $power = 1.0 / self::apart($pieces);

        return $this->taken(static fn (float $part): float => $part ** $power);
    }

    /** Until the first of several pieces that begin together has done it. */
    public function ofFirst(int $pieces): self
    {
        $power = 1.0 / self::apart($pieces);

        return $this->taken(static fn (float $part): float => 1.0 - (1.0 - $part) ** $power);
    }

    public function plus(int $seconds): self
    {
        return new self(
            array_map(static fn (?int $one): ?int => $one === null ? null : $one + $seconds, $this->seconds),
        );
    }

    /** As it goes in this kitchen. */
    public function at(LearnedPace $pace): self
    {
        $likely = $this->by(0.5);
        if ($likely === null || $likely <= 0) {
            return $this;
        }

        return new self(
            array_map(
                static fn (?int $one): ?int => $one === null || $one <= 0
                    ? $one
                    : (int) ($pace->factor * $likely * ($one / $likely) ** $pace->spread),
                $this->seconds,
            ),
        );
    }

    /**
     * 0 to 1: the chance that this and, after it, another of which nothing is known from the first, are over by then.
     */
    public function thenOverBy(self $next, int $seconds): float
    {
        $over = 0.0;
        foreach ($this->seconds as $one) {
            $over += $one === null ? 0.0 : 1.0 - $next->longerThan($seconds - $one);
        }

        return $over / self::PARTS;
    }

    /** As many pieces as would say as much if each were on its own. */
    private static function apart(int $pieces): float
    {
        return 1.0 + self::OWN * (max(1, min(self::MOST_OWN, $pieces)) - 1);
    }

    /** @param \Closure(float): float $part of the course of one, by the part of the course of all */
    private function taken(\Closure $part): self
    {
        $seconds = [];
        for ($n = 0; $n < self::PARTS; ++$n) {
            $seconds[] = $this->by($part(($n + 0.5) / self::PARTS));
        }

        return new self($seconds);
    }
}
