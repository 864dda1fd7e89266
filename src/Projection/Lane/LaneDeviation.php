<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Threshold;

/** One rule of a lane that is broken or not shown. */
final readonly class LaneDeviation
{
    /** @param bool $isOpen whether it has no corrective action yet */
    public function __construct(
        public string $rule,
        public Verdict $verdict,
        public ?Threshold $towards,
        public bool $isOpen,
    ) {
    }
}
