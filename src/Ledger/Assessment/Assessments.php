<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Assessment;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\AbridgedRecords;
use Verjuicer\App\Ledger\Log\KnownRecord;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Assess\Abridged\Abridgement;
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
        private AbridgedRecords $abridged,
        private RuleSetLibrary $ruleSets,
        private Assessor $assessor,
        private Now $now,
    ) {
    }

    /** Its record may be abridged: of readings that nothing turns on any more it tells how many there were. */
    public function of(Batch $batch): Assessment
    {
        return $this->ofKnown($this->abridged->of($batch));
    }

    public function ofKnown(KnownRecord $known): Assessment
    {
        return $this->assessed($known->record, $known->abridgement);
    }

    /** With every reading, for what shows them all, and for what checks what was judged. */
    public function whole(Batch $batch): Assessment
    {
        return $this->assessed($this->records->of($batch), null);
    }

    private function assessed(Record $record, ?Abridgement $abridgement): Assessment
    {
        $rules = $this->ruleSets->get($record->rules);

        return $this->assessor->assess($record, $rules, $this->moment($record), $abridgement);
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
