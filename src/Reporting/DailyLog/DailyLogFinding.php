<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\LocalDate;

/** A deviation or gap on a daily log, with its resolution. */
final readonly class DailyLogFinding
{
    /**
     * @param LocalDate $day the one it belongs to: it is reasoned there, and once
     * @param string $evidence from when to when the entries are that it rests on, in words; '' where it rests on none
     * @param ActionTaken|null $settledBy the last action against it, where nothing came after
     * @param OpenFindingReason|null $reason why it was left open
     */
    public function __construct(
        public Finding $finding,
        public string $sentence,
        public LocalDate $day,
        public string $evidence,
        public ?ActionTaken $settledBy,
        public ?OpenFindingReason $reason,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->settledBy === null;
    }
}
