<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;

/** How far a planned batch is that became a real one. */
final readonly class Progress
{
    /**
     * @param Instant|null $loaded when it went on the heat
     * @param Instant|null $pulled when it came off
     * @param Duration|null $done from loading until it is done, as it is believed by now; null off the heat
     * @param string|null $pit it went into, if recorded
     */
    public function __construct(
        public ?Instant $loaded,
        public ?Instant $pulled,
        public ?Duration $done,
        public ?string $pit = null,
    ) {
    }
}
