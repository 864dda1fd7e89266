<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\App\Platform\Problem\Problem;

/** An entry that conflicts with existing events. */
final class EventConflict extends Problem
{
    /** A client used one id for two different entries; a retry of the same entry is no conflict. */
    public static function idTaken(): self
    {
        return new self('entry.problem.id_taken');
    }

    public static function replacesNothing(): self
    {
        return new self('entry.problem.replaces_nothing');
    }

    public static function inTheFuture(): self
    {
        return new self('entry.problem.future');
    }

    public function status(): int
    {
        return 409;
    }
}
