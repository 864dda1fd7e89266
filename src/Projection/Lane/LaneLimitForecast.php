<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/** A gate of a cooling that is likely to be passed too late: a forecast. */
final readonly class LaneLimitForecast
{
    public function __construct(
        public string $rule,
        public bool $isSure,
        public Instant $deadline,
        public ?Threshold $towards,
    ) {
    }
}
