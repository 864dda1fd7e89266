<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Ledger\Batch\Batch;

/** The batch an entry belongs to; and the piece of it that goes its own way first, with the tag it gets. */
final readonly class Destination
{
    public function __construct(public Batch $batch, public ?int $piece = null, public ?int $tag = null)
    {
    }
}
