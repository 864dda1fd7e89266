<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/** One limit that runs for a batch, or the moment a forecast gives. */
final readonly class HoldingLimit
{
    /**
     * @param string $kind of a countdown, or 'forecast'
     * @param Instant|null $since what it counts from at the earliest
     * @param Instant|null $latest of a forecast; null where it may never come
     * @param Threshold|null $towards what must be reached, or kept, by then
     */
    public function __construct(
        public string $rule,
        public string $kind,
        public ?string $track,
        public Instant $deadline,
        public ?Instant $since,
        public ?Instant $latest,
        public ?Threshold $towards,
    ) {
    }

    /** The key of what it asks; what is past is told as past. */
    public function words(Instant $now): string
    {
        return match (true) {
            $this->kind === 'forecast' => 'fall.hot',
            $this->kind === 'limit' && $now->isAfter($this->deadline) => 'due.past.'.$this->rule,
            default => 'due.'.$this->kind.'.'.$this->rule,
        };
    }
}
