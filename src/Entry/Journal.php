<?php

declare(strict_types=1);

namespace Verjuicer\App\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Account\Account;
use Verjuicer\App\Batch\Batch;
use Verjuicer\App\Record\EventConflict;
use Verjuicer\App\Record\EventLog;
use Verjuicer\App\Record\Now;
use Verjuicer\App\Record\StoredRecords;
use Verjuicer\App\Thermometer\Thermometers;
use Verjuicer\Core\Assess\Timeline;
use Verjuicer\Core\Assess\Trace;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\Doubt;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Where entries of people become events: checked against the batch, doubted once where implausible, then kept. */
final readonly class Journal
{
    public function __construct(
        private EventLog $log,
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Thermometers $thermometers,
        private Now $now,
    ) {
    }

    /**
     * The entry with its thermometer filled in: the one the batch was last read with, unless one was named.
     *
     * @throws EntryProblem if the batch has no such piece
     */
    public function completed(Batch $batch, Entry $entry): Entry
    {
        if ($entry->detail instanceof Detail\Reading || $entry->detail instanceof Detail\ProbeMoved) {
            if ($entry->detail->piece > $batch->pieces) {
                throw EntryProblem::unknownPiece($entry->detail->piece, $batch->pieces);
            }
        }

        return $entry->readWith($this->thermometers->lastUsedIn($batch));
    }

    /** @return list<Doubt> why this entry may be a slip; none where it is plausible */
    public function doubts(Batch $batch, Entry $entry): array
    {
        if (!$entry->detail instanceof Detail\Reading) {
            return [];
        }
        $reading = $entry->detail;
        $at = $entry->at($this->now->instant());
        $track = (new Trace(Timeline::of($this->records->of($batch), $at)->readings))->byTrack()[$reading->piece.'/'.$reading->spot] ?? null;
        $before = $track?->last();

        return $this->ruleSets->get($batch->ruleSet)->house->plausible->doubts(
            $reading->temp,
            $at,
            $batch->site->unit,
            $before?->temp,
            $before === null ? null : Instant::ofEpoch($before->at),
        );
    }

    /**
     * Keeps an entry under the id its client gave it; again under the same id it is kept once.
     *
     * @throws EventConflict if the id belongs to another entry
     */
    public function keep(Batch $batch, Account $by, Uuid $id, Entry $entry): Event
    {
        $now = $this->now->instant();
        $event = $entry->event($id->toRfc4122(), $now, $by->initials);
        $this->log->append($batch, $by, $now, $event);

        return $event;
    }

    /** Takes an entry back by a further event; the entry itself stays in the record. */
    public function void(Batch $batch, Account $by, Uuid $id, Uuid $entry, string $reason): void
    {
        $now = $this->now->instant();
        $this->log->append($batch, $by, $now, new Event($id->toRfc4122(), $now, $by->initials, EventType::Void, Detail\Bare::of(), $entry->toRfc4122(), $reason));
    }
}
