<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Ruleset\CitedSpan;
use Verjuicer\Core\Ruleset\CitedThreshold;

/** One cooling limit: its rule, the temperature to reach, and the time allowed since the food was last shown hot. */
final readonly class CoolingLimit
{
    public function __construct(public string $rule, public CitedThreshold $at, public CitedSpan $within)
    {
    }
}
