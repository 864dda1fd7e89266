<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\App\Ledger\Batch\Batch;

/** The progress of an import, reported between two short writes, so that other entries get in. */
final class ImportProgress
{
    public int $done = 0;

    public int $total = 0;

    /**
     * @param string|null $batchId of the batch that was not all in when it was stopped
     * @param (\Closure(self): void)|null $told called between two writes; throws ImportCancelled where it is to end
     * @param (\Closure(string|null): void)|null $kept called within a write, with the id of the batch that is not all
     *     in after it; null where none is
     */
    public function __construct(
        public ?string $batchId = null,
        private readonly ?\Closure $told = null,
        private readonly ?\Closure $kept = null,
    ) {
    }

    /**
     * Between two writes.
     *
     * @throws ImportCancelled
     */
    public function tell(int $events): void
    {
        $this->done += $events;
        if ($this->told !== null) {
            ($this->told)($this);
        }
    }

    /** Within a write. */
    public function keep(?Batch $unfinished): void
    {
        $id = $unfinished?->id->toRfc4122();
        if ($id !== $this->batchId && $this->kept !== null) {
            ($this->kept)($id);
        }
        $this->batchId = $id;
    }
}
