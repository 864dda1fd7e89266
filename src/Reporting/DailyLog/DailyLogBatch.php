<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/** A batch on the sheet of a day. */
final readonly class DailyLogBatch
{
    /**
     * @param int $readings of the day
     * @param int $late of these, written down more than `$lateAfter` later
     * @param string $zone time in the danger zone, in words
     * @param list<DailyLogFinding> $findings that belong to the day
     * @param array<string, LocalDate> $elsewhere rules whose findings belong to an earlier day, with that day
     * @param list<string> $cautions in words
     * @param list<ActionTaken> $actions
     * @param bool $runsOn whether it was on another day, too
     * @param list<FlaggedEntry> $marked entries of the day that were late, replaced or taken in from a file
     * @param int $entries of the day
     */
    public function __construct(
        public Batch $batch,
        public string $verdict,
        public int $readings,
        public int $late,
        public Span $lateAfter,
        public string $zone,
        public array $findings,
        public array $elsewhere,
        public array $cautions,
        public array $actions,
        public bool $runsOn,
        public array $marked,
        public int $entries,
    ) {
    }

    /** @return list<string> rules of the day without a corrective action or a reason for leaving them open */
    public function unreasoned(): array
    {
        $rules = [];
        foreach ($this->findings as $one) {
            if ($one->isOpen() && $one->reason === null) {
                $rules[$one->finding->rule] = true;
            }
        }

        return array_map(strval(...), array_keys($rules));
    }
}
