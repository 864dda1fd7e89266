<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\Doubt;

/**
 * The one way in for what happens to a batch: completed from what is known of it, refused where it cannot be, doubted once where it is
 * hardly possible, then kept. Any number of entries cost one lock, one assessment and a number of statements that does not grow with them.
 */
final readonly class RecordEntry
{
    public function __construct(
        private Completion $completion,
        private Doubts $doubts,
        private EntryEcho $echo,
        private EventLog $log,
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
        return $this->completion->of($batch, array_values($drafts));
    }

    /**
     * Why entries may be slips, by their place; what is plausible is not there.
     *
     * @return array<int, non-empty-list<Doubt>>
     *
     * @throws EntryProblem if one cannot be of this batch as it stands
     */
    public function doubts(Batch $batch, Draft ...$drafts): array
    {
        return $this->doubts->of($batch, $this->completed($batch, ...$drafts));
    }

    /**
     * Keeps entries in their order; again under the same ids they are kept once.
     *
     * @param bool $isSure whether whoever made them said so when asked
     *
     * @return list<Draft> as they were kept
     *
     * @throws EntryProblem                            if one cannot be of this batch as it stands
     * @throws Doubtful                                if one is hardly possible and nobody said that it is right
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if one does not go with what is kept already
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse    if the batch would be open again beside another of its tag
     */
    public function keep(Batch $batch, Account $by, bool $isSure, Draft ...$drafts): array
    {
        $completed = $this->completed($batch, ...$drafts);
        if (!$isSure) {
            foreach ($this->doubts->of($batch, $completed) as $index => $doubts) {
                throw Doubtful::because($doubts, $this->echo->of($batch, $completed[$index]), $index, $batch->site->unit);
            }
        }
        $events = array_map(static fn (Draft $draft): Event => $draft->event($by->initials), $completed);
        $this->log->append($batch, $by, ...$events);

        return $completed;
    }
}
