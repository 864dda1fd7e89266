<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/** One countdown of a lane, with the temperature it runs towards. */
final readonly class LaneDue
{
    public function __construct(
        public string $rule,
        public CountdownKind $kind,
        public ?string $track,
        public Instant $deadline,
        public ?Threshold $towards,
    ) {
    }
}
