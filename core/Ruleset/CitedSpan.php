<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** A time limit and the section that sets it. */
final readonly class CitedSpan
{
    public function __construct(public Span $span, public string $citation)
    {
    }
}
