<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Measure\Instant;

/** A limit that lies ahead, or has passed while nothing was done: it counts from the earliest start the record allows. */
final readonly class Clock
{
    public function __construct(
        public string $rule,
        public ClockKind $kind,
        public ?string $track,
        public Instant $earliestStart,
        public Instant $latestStart,
        public Instant $deadline,
    ) {
    }
}
