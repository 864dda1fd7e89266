<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform;

use Symfony\Component\Clock\ClockInterface;
use Verjuicer\Core\Measure\Instant;

/** The present moment, for a core that knows none. */
final readonly class Now
{
    public function __construct(private ClockInterface $clock)
    {
    }

    public function instant(): Instant
    {
        return Instant::ofEpoch($this->clock->now()->getTimestamp());
    }
}
