<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/** A record for repeated judging: whole, or a checkpoint and the events since. */
final readonly class JudgedRecord
{
    /**
     * @param Checkpoint|null $abridgement the omitted part; null if it is whole
     * @param int $kept how many events an abridged record begins with that were in it before
     */
    public function __construct(
        public Record $record,
        public StoredRows $rows,
        public ?Checkpoint $abridgement,
        public int $kept,
    ) {
    }

    /** Number of the batch's own events since the checkpoint. */
    public function since(): int
    {
        return \count($this->rows->events) - $this->kept;
    }

    /**
     * @param StoredRows $rows with all later entries
     * @param list<Event> $more that alone
     * @param list<Event> $ofPits present events from the log of its pits
     */
    public function with(StoredRows $rows, array $more, array $ofPits): self
    {
        $events = [...$this->own()->events, ...$more, ...$ofPits];

        return new self($this->record->of($events), $rows, $this->abridgement, $this->kept);
    }

    /** Without the log of its pits, which is joined to it whenever it is read. */
    public function own(): Record
    {
        return $this->record->of(\array_slice($this->record->events, 0, \count($this->rows->events)));
    }
}
