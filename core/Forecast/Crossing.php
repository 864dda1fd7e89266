<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/** When a falling temperature may pass another: not before the earliest moment; by the latest, or perhaps never. */
final readonly class Crossing
{
    public function __construct(public Instant $earliest, public ?Instant $latest)
    {
    }

    public function contains(Instant $instant): bool
    {
        return $instant->epoch >= $this->earliest->epoch
            && ($this->latest === null || $instant->epoch <= $this->latest->epoch);
    }
}
