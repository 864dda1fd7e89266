<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\Core\Measure\Instant;

/** What an alarm is about. One cause with many effects is one alarm, with their list. */
final readonly class AlarmCause
{
    /**
     * @param string $key the same as long as it is the same cause
     * @param string $words what it is, and of what
     * @param string $does what to do
     * @param Instant|null $until by when
     * @param string $door the path of the page where it is settled
     * @param list<string> $effects what follows from it, a sentence each
     */
    public function __construct(
        public string $key,
        public AlarmLevel $level,
        public string $words,
        public string $does,
        public ?Instant $until,
        public ?string $batchId,
        public string $door,
        public array $effects = [],
    ) {
    }

    /** @param list<string> $effects */
    public function with(array $effects): self
    {
        return new self(
            $this->key,
            $this->level,
            $this->words,
            $this->does,
            $this->until,
            $this->batchId,
            $this->door,
            $effects,
        );
    }
}
