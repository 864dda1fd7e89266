<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Threshold;

/** A temperature limit and the section that sets it. */
final readonly class CitedThreshold
{
    public function __construct(public Threshold $threshold, public string $citation)
    {
    }
}
