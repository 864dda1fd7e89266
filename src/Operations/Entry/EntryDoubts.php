<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\BatchAmounts;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\SlipReason;

/**
 * Which entries are hardly possible by what the record says already: asked about once, and kept if they are right all
 * the same.
 */
final readonly class EntryDoubts
{
    public function __construct(
        private CheckpointedRecords $records,
        private RuleSetLibrary $ruleSets,
        private BatchAmounts $amounts,
        private LineWords $words,
        private EntryTime $time,
    ) {
    }

    /**
     * @param list<Draft> $drafts
     *
     * @return array<int, non-empty-list<SlipReason>> by the place of the entry; the plausible ones are not there
     */
    public function of(Batch $batch, array $drafts): array
    {
        if ($drafts === []) {
            return [];
        }
        $struck = [];
        foreach ($drafts as $draft) {
            if ($draft->replaces !== null) {
                $struck[] = new Event($draft->id->toRfc4122(), $draft->at, '', new Voided(), $draft->replaces);
            }
        }
        $first = min(array_map(static fn (Draft $draft): int => $draft->at->epoch, $drafts));
        // What is put right may have happened at any time.
        $record = $this->records->at($batch, Instant::ofEpoch($struck === [] ? $first : 0));
        $timeline = Timeline::of($record->with(...$struck), Instant::ofEpoch(\PHP_INT_MAX));
        $rules = $this->ruleSets->get($batch->ruleSet);
        $readings = new ReadingDoubts($rules, $timeline, $batch->site->unit, $this->time->now());
        $steps = new StepDoubts(
            $rules,
            $timeline,
            $batch,
            $this->amounts->left($batch),
            $this->words->said('pierced'),
        );
        $doubtful = [];
        foreach ($drafts as $index => $draft) {
            $doubts = $draft->detail instanceof Reading
                ? $readings->of($draft->detail, $draft->at, $draft->replaces !== null)
                : [];
            array_push($doubts, ...$steps->of($draft->detail, $draft->at, $draft->ofPiece));
            if ($doubts !== []) {
                $doubtful[$index] = $doubts;
            }
        }

        return $doubtful;
    }
}
