<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/** A gate of a cooling that is still to be passed, and when a piece is likely to pass it. */
final readonly class FallGate
{
    public ?Lateness $late;

    /** @param Crossing|null $crossing null where it is not likely to pass it at all */
    public function __construct(
        public string $rule,
        public string $track,
        public Threshold $towards,
        public Instant $deadline,
        public ?Crossing $crossing,
    ) {
        $this->late = Lateness::of($crossing, $deadline);
    }

    /** Whether it passes the gate later than another of its rule, or is less likely to pass it in time. */
    public function isLaterThan(self $other): bool
    {
        return $this->rank() > $other->rank();
    }

    /** By when to read it, so that a reading shows it passed if it is passed. */
    public function readBy(): Instant
    {
        $latest = $this->crossing?->latest;

        return $latest !== null && !$latest->isAfter($this->deadline) ? $latest : $this->deadline;
    }

    /** @return array{int, int} */
    private function rank(): array
    {
        $late = match ($this->late) {
            null => 0,
            Lateness::Maybe => 1,
            Lateness::Sure => 2,
        };

        return [$late, ($this->crossing->latest ?? $this->crossing?->earliest)->epoch ?? \PHP_INT_MAX];
    }
}
