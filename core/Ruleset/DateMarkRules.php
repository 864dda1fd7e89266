<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** Who needs a date mark, and how many days it gives, the day of preparation being day 1. */
final readonly class DateMarkRules
{
    public function __construct(public string $citation, public Span $after, public int $days)
    {
    }
}
