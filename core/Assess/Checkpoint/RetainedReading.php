<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Checkpoint;

use Verjuicer\Core\Assess\Evidence\OmittedReadings;
use Verjuicer\Core\Assess\Evidence\TrackReading;

/** A reading that a check may still need, with the omitted readings before it on its track. */
final class RetainedReading
{
    public ?self $previous = null;

    public ?self $next = null;

    /** How many marks stand on it. */
    public int $holds = 0;

    public bool $isPinned = false;

    public function __construct(
        public readonly TrackReading $reading,
        public readonly bool $isUnchecked,
        public readonly bool $isOverdue,
        private OmittedReadings $leftOut,
    ) {
    }

    public function leftOut(): OmittedReadings
    {
        return $this->leftOut;
    }

    /** Goes out of its track; the one after it says so. */
    public function leave(): void
    {
        $next = $this->next;
        \assert($next !== null, 'the last of a track is held');
        $unit = $this->reading->temp->unit->value;
        $lowest = $next->leftOut->lowest;
        foreach ([[$unit => $this->reading->level], $this->leftOut->lowest] as $levels) {
            foreach ($levels as $of => $level) {
                $lowest[$of] = min($level, $lowest[$of] ?? $level);
            }
        }
        $next->leftOut = new OmittedReadings(
            $next->leftOut->count + $this->leftOut->count + 1,
            max($next->leftOut->gap, $this->leftOut->gap),
            $lowest,
            $next->leftOut->before,
            $next->leftOut->impossible + $this->leftOut->impossible,
            $next->leftOut->unchecked + $this->leftOut->unchecked + ($this->isUnchecked ? 1 : 0),
            $next->leftOut->overdue + $this->leftOut->overdue + ($this->isOverdue ? 1 : 0),
        );
        $next->previous = $this->previous;
        if ($this->previous !== null) {
            $this->previous->next = $next;
        }
    }
}
