<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** When something is likely to happen: from the earliest moment to the latest. A forecast; it never clears food. */
final readonly class Window
{
    public function __construct(public Instant $earliest, public Instant $latest)
    {
    }

    public function width(): Span
    {
        return Span::between($this->earliest, $this->latest);
    }

    public function contains(Instant $instant): bool
    {
        return $instant->epoch >= $this->earliest->epoch && $instant->epoch <= $this->latest->epoch;
    }
}
