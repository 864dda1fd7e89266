<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Ledger\Batch\Batch;

/** An entry as it was kept, and the batch it went to. */
final readonly class RecordedEntry
{
    public function __construct(public Batch $batch, public Draft $draft)
    {
    }
}
