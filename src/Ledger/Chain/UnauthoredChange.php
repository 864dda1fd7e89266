<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\Core\Measure\Instant;

/** A change of settings, people or things of the kitchen that the application did not make. */
final readonly class UnauthoredChange
{
    /** @param string $changed old and new values as the database writes them; empty for an inserted row */
    public function __construct(
        public string $table,
        public string $rowId,
        public int $position,
        public Instant $at,
        public string $changed,
    ) {
    }
}
