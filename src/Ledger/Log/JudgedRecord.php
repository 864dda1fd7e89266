<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/** A record as it is judged again and again: whole, or abridged to what was judged before and what came since. */
final readonly class JudgedRecord
{
    /**
     * @param Checkpoint|null $abridgement what was left out; null where it is whole
     * @param int $kept how many events an abridged record begins with that were in it before
     */
    public function __construct(
        public Record $record,
        public StoredRows $rows,
        public ?Checkpoint $abridgement,
        public int $kept,
    ) {
    }

    /** Of what is written down of the batch itself: how much came since it was abridged. */
    public function since(): int
    {
        return \count($this->rows->events) - $this->kept;
    }

    /**
     * @param StoredRows $rows with what was written down after all of it
     * @param list<Event> $more that alone
     * @param list<Event> $ofPits what the log of its pits says by now
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
