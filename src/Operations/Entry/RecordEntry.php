<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\OfflineEntryTime;
use Verjuicer\Core\Ruleset\SlipReason;

/**
 * The one way in for what happens to a batch: brought to the batch that holds the piece it is about, completed from
 * what is known, refused where it cannot be, doubted once where it is hardly possible, then kept. Any number of entries
 * cost one lock, one assessment and a number of statements that does not grow with them.
 */
final readonly class RecordEntry
{
    public function __construct(
        private PieceSplitter $partWays,
        private Completion $completion,
        private EntryDoubts $doubts,
        private EntryEcho $echo,
        private PitEntrySync $atPit,
        private Ledger $ledger,
        private EventLog $log,
        private OfflineEntryTime $offline,
        private EntryTime $time,
    ) {
    }

    /**
     * What would be recorded.
     *
     * @return list<Draft>
     *
     * @throws EntryProblem if it cannot be of this batch as it stands
     */
    public function completed(Batch $batch, Draft ...$drafts): array
    {
        return array_column($this->resolved($batch, array_values($drafts)), 1);
    }

    /**
     * What would be recorded, in words.
     *
     * @throws EntryProblem if it cannot be of this batch as it stands
     */
    public function told(Batch $batch, Draft $draft): string
    {
        [[$destination, $completed]] = $this->resolved($batch, [$draft]);

        return $this->echo->of($destination, $completed);
    }

    /**
     * Why entries may be slips, by their place; what is plausible is not there.
     *
     * @return array<int, non-empty-list<SlipReason>>
     *
     * @throws EntryProblem if one cannot be of this batch as it stands
     */
    public function doubts(Batch $batch, Draft ...$drafts): array
    {
        return $this->doubtsOf($this->resolved($batch, array_values($drafts)));
    }

    /**
     * Keeps entries in their order; again under the same ids they are kept once.
     *
     * @param bool $isSure whether whoever made them said so when asked
     *
     * @return list<RecordedEntry>
     *
     * @throws EntryProblem if one cannot be of this batch as it stands
     * @throws ImplausibleEntry if one is hardly possible and nobody said that it is right
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if one does not go with what is kept already
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse if the batch would be open again beside another of its tag
     */
    public function keep(Batch $batch, Account $by, bool $isSure, Draft ...$drafts): array
    {
        $drafts = array_values($drafts);
        $resolved = $this->resolved($batch, $drafts);
        foreach ($isSure ? [] : $this->doubtsOf($resolved) as $index => $doubts) {
            throw ImplausibleEntry::because($doubts, $this->echo->of(...$resolved[$index]), $index, $batch->site->unit);
        }

        return $this->ledger->write($batch->site, function () use ($by, $resolved, $drafts): array {
            $kept = $events = $batches = [];
            foreach ($resolved as $index => [$destination, $draft]) {
                $to =
                    $destination->piece === null
                        ? $destination->batch
                        : $this->apart($destination->batch, $drafts[$index], $by);
                $kept[] = new RecordedEntry($to, $draft);
                $batches[$to->id->toRfc4122()] = $to;
                $events[$to->id->toRfc4122()][] = $draft->event($by->initials, $this->offline->at() !== null);
            }
            foreach ($events as $id => $ofOne) {
                $this->log->append($batches[$id], $by, ...$ofOne);
            }
            foreach ($kept as $one) {
                $this->atPit->share($one, $by);
            }

            return $kept;
        });
    }

    /** Where a piece goes its own way: seen again within the write, in which nobody else can have let it go. */
    private function apart(Batch $batch, Draft $draft, Account $by): Batch
    {
        [$now] = $this->partWays->of($batch, [$draft]);

        return $now->piece === null || $now->tag === null
            ? $now->batch
            : $this->partWays->apart(
                Uuid::v5($draft->id, 'apart'),
                $now->batch,
                $by,
                $draft->at,
                [$now->piece],
                $now->tag,
            );
    }

    /**
     * @param list<Draft> $drafts
     *
     * @return list<array{Destination, Draft}>
     */
    private function resolved(Batch $batch, array $drafts): array
    {
        foreach ($drafts as $draft) {
            if ($this->time->needsReason($draft)) {
                throw EntryProblem::lateWithoutReason($draft->at->epoch, $this->time->now()->epoch);
            }
        }
        $destinations = $this->partWays->of($batch, $drafts);
        $ofBatch = $batches = [];
        foreach ($drafts as $index => $draft) {
            $id = $destinations[$index]->batch->id->toRfc4122();
            $batches[$id] = $destinations[$index]->batch;
            $ofBatch[$id][$index] = $draft;
        }
        $completed = [];
        foreach ($ofBatch as $id => $its) {
            $completed += array_combine(array_keys($its), $this->completion->of($batches[$id], array_values($its)));
        }
        $resolved = [];
        foreach ($destinations as $index => $destination) {
            $resolved[] = [$destination, $completed[$index]];
        }

        return $resolved;
    }

    /**
     * @param list<array{Destination, Draft}> $resolved
     *
     * @return array<int, non-empty-list<SlipReason>>
     */
    private function doubtsOf(array $resolved): array
    {
        $ofBatch = $batches = [];
        foreach ($resolved as $index => [$destination, $draft]) {
            $id = $destination->batch->id->toRfc4122();
            $batches[$id] = $destination->batch;
            $ofBatch[$id][$index] = $draft;
        }
        $doubtful = [];
        foreach ($ofBatch as $id => $its) {
            $places = array_keys($its);
            foreach ($this->doubts->of($batches[$id], array_values($its)) as $index => $doubts) {
                $doubtful[$places[$index]] = $doubts;
            }
        }
        ksort($doubtful);

        return $doubtful;
    }
}
