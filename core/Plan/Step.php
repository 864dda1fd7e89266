<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;

/** Something to be done for a dish, and when: likely at a moment, one time in ten before or after the others. */
final readonly class Step
{
    public function __construct(
        public StepKind $kind,
        public Instant $at,
        public ?Instant $earliest = null,
        public ?Instant $latest = null,
    ) {
    }

    /** Whether one cannot know the minute. */
    public function isOpen(): bool
    {
        return $this->earliest !== null && $this->earliest->epoch !== $this->at->epoch;
    }
}
