<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Instant;

/** A version of a written procedure, and when it was in force. */
final readonly class Procedure
{
    /** @param Instant|null $to from when another was; null while it is */
    public function __construct(
        public ProcedureKind $kind,
        public string $number,
        public int $version,
        public Instant $from,
        public ?Instant $to = null,
    ) {
    }

    public function isInForceAt(Instant $at): bool
    {
        return !$this->from->isAfter($at) && ($this->to === null || $this->to->isAfter($at));
    }
}
