<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Assessment;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** What the record of a batch shows now: the one road from the ledger to an assessment. */
final readonly class Assessments
{
    public function __construct(
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Assessor $assessor,
        private Now $now,
    ) {
    }

    public function of(Batch $batch): Assessment
    {
        $record = $this->records->of($batch);

        return $this->assessor->assess($record, $this->ruleSets->get($record->rules), $this->moment($record));
    }

    /** Now; where a client's clock was a little ahead, the moment of what it sent. */
    private function moment(Record $record): Instant
    {
        $moment = $this->now->instant();
        foreach ($record->events as $event) {
            $moment = $event->at->isAfter($moment) ? $event->at : $moment;
        }

        return $moment;
    }
}
