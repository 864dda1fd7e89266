<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\Core\Measure\Instant;

/** A change of settings, people or things of the kitchen that the application did not make. */
final readonly class UnauthoredChange
{
    /** @param string $changed what it was and is since, in the words of the database; empty where it was put in */
    public function __construct(
        public string $table,
        public string $rowId,
        public int $position,
        public Instant $at,
        public string $changed,
    ) {
    }
}
