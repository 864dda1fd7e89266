<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/**
 * A limit that lies ahead, or has passed without a reading. It counts from the earliest start the record allows and
 * carries the temperature to reach.
 */
final readonly class Countdown
{
    /**
     * @param string $rule as in the finding it belongs to
     * @param string|null $track "1/core", or null where it is about the whole batch
     * @param Threshold|null $towards the temperature to reach, or to keep, by the deadline; null if only time counts
     */
    public function __construct(
        public string $rule,
        public CountdownKind $kind,
        public ?string $track,
        public Instant $earliestStart,
        public Instant $latestStart,
        public Instant $deadline,
        public ?Threshold $towards = null,
    ) {
    }
}
