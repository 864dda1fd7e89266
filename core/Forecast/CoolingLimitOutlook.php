<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Threshold;

/** A gate of a cooling that is still to be passed, and when a piece is likely to pass it. */
final readonly class CoolingLimitOutlook
{
    private const FRESH = 20; // minutes

    public ?Lateness $late;

    /**
     * @param Crossing|null $crossing null where it is not likely to pass it at all
     * @param float $chance 0 to 1, that it is late
     * @param Instant|null $hotAt the last hot reading, if a further hot reading restarts the time; the chance assumes
     *     so until the deadline
     */
    public function __construct(
        public string $rule,
        public string $track,
        public Threshold $towards,
        public Instant $deadline,
        public ?Crossing $crossing,
        public float $chance,
        public ?Instant $hotAt = null,
    ) {
        $this->late = Lateness::of($chance);
    }

    /** 0 to 10: how many times in ten it is late. */
    public function tenths(): int
    {
        return Chance::tenthsOfBad($this->chance);
    }

    /** Whether its chance is of a time that only a reading begins: the last one is a while ago, and was still hot. */
    public function isOfNextReading(Instant $now): bool
    {
        return $this->hotAt !== null && Span::between($this->hotAt, $now)->isLongerThan(Span::ofMinutes(self::FRESH));
    }

    /** Whether it passes the gate later than another of its rule, or is less likely to pass it in time. */
    public function isLaterThan(self $other): bool
    {
        return $this->rank() > $other->rank();
    }

    /** @return array{float, int, int} of those that are late for certain, the one that is first */
    private function rank(): array
    {
        $chance = round($this->chance, 2);

        return [$chance, $chance >= 1.0 ? -$this->deadline->epoch : 0, $this->last()];
    }

    /** By when to read it, so that a reading shows it passed if it is passed. */
    public function readBy(): Instant
    {
        $latest = $this->crossing?->latest;

        return $latest !== null && !$latest->isAfter($this->deadline) ? $latest : $this->deadline;
    }

    private function last(): int
    {
        return ($this->crossing->latest ?? $this->crossing?->earliest)->epoch ?? \PHP_INT_MAX;
    }
}
