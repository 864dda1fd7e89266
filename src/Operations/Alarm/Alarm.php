<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\Core\Measure\Instant;

/** An alarm as it stands. */
final readonly class Alarm
{
    /** @param list<string> $effects */
    public function __construct(
        public string $id,
        public string $cause,
        public AlarmLevel $level,
        public string $words,
        public string $does,
        public ?Instant $until,
        public ?string $batchId,
        public string $door,
        public array $effects,
        public Instant $raisedAt,
        public ?Instant $overAt,
        public ?Instant $takenAt,
        public ?string $takenBy,
        public ?Instant $settledAt,
        public ?Instant $putOffUntil,
        public int $step,
        public ?Instant $nextStepAt,
    ) {
    }

    /** Whether it still asks for somebody. */
    public function isOpen(): bool
    {
        return $this->overAt === null && $this->settledAt === null;
    }

    /** Whether the board sounds for it. */
    public function sounds(Instant $now): bool
    {
        return $this->isOpen()
            && $this->level !== AlarmLevel::Look
            && $this->takenAt === null
            && ($this->putOffUntil === null || $now->isAfter($this->putOffUntil));
    }
}
