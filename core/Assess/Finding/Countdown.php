<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/**
 * A limit that lies ahead, or has passed while nothing was done: it counts from the earliest start the record allows.
 * It carries the temperature it runs towards, so that nobody has to guess it from the rule's name.
 */
final readonly class Countdown
{
    /**
     * @param string $rule as in the finding it belongs to
     * @param string|null $track "1/core", or null where it is about the whole batch
     * @param Threshold|null $towards what must be reached, or kept, by the deadline; null where it is a matter of time
     *     alone
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
