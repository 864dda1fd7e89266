<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Threshold;

/** One way to meet a cooking rule: this temperature, and this long at it or above. */
final readonly class CookingRow
{
    public function __construct(public Threshold $temperature, public Span $dwell)
    {
    }
}
