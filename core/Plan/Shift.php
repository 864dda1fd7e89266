<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;

/** A person's working hours. */
final readonly class Shift
{
    public function __construct(public string $who, public Instant $from, public Instant $to)
    {
    }

    public function covers(Instant $at): bool
    {
        return $at->epoch >= $this->from->epoch && $at->epoch <= $this->to->epoch;
    }
}
