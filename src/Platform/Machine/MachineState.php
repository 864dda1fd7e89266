<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Verjuicer\Core\Measure\Instant;

/** How one of the machine's own duties went the last time. */
final readonly class MachineState
{
    /** @param bool $isStale longer ago than it may be */
    public function __construct(
        public string $what,
        public Instant $at,
        public bool $isGood,
        public bool $isStale,
        public string $words,
    ) {
    }

    public function needsSomebody(): bool
    {
        return !$this->isGood || $this->isStale;
    }
}
