<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Ruleset\CitedSpan;
use Verjuicer\Core\Ruleset\CitedThreshold;

/** One gate of a cooling: the rule it is, what must be reached, and within what time since it was last shown hot. */
final readonly class CoolingLimit
{
    public function __construct(public string $rule, public CitedThreshold $at, public CitedSpan $within)
    {
    }
}
