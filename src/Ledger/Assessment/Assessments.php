<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Assessment;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\App\Ledger\Log\JudgedRecord;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The assessment of a batch now: the one path from the ledger to an assessment. */
final readonly class Assessments
{
    public function __construct(
        private StoredRecords $records,
        private CheckpointedRecords $abridged,
        private RuleSetLibrary $ruleSets,
        private Assessor $assessor,
        private RecordingClock $clock,
    ) {
    }

    /** Its record may be abridged: of readings that nothing turns on any more it tells how many there were. */
    public function of(Batch $batch): Assessment
    {
        return $this->ofKnown($batch, $this->abridged->of($batch));
    }

    public function ofKnown(Batch $batch, JudgedRecord $known): Assessment
    {
        return $this->assessed($batch->site, $known->record, $known->abridgement);
    }

    /** With every reading, for pages that show all of them and for audits. */
    public function whole(Batch $batch): Assessment
    {
        return $this->assessed($batch->site, $this->records->of($batch), null);
    }

    private function assessed(Site $site, Record $record, ?Checkpoint $abridgement): Assessment
    {
        $rules = $this->ruleSets->get($record->rules);

        return $this->assessor->assess($record, $rules, $this->moment($site, $record), $abridgement);
    }

    /** Now, by a trusted clock; the time of the request's entry if the client's clock was a little ahead. */
    private function moment(Site $site, Record $record): Instant
    {
        $moment = $this->clock->present($site->id->toRfc4122());
        foreach ($record->events as $event) {
            $moment = $event->at->isAfter($moment) ? $event->at : $moment;
        }

        return $moment;
    }
}
