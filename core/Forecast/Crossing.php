<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Measure\Instant;

/**
 * When a temperature may pass another: nine times in ten not before the earliest moment, and by the latest, or perhaps
 * never.
 */
final readonly class Crossing
{
    public function __construct(public Instant $earliest, public ?Instant $latest, public ?Instant $likely = null)
    {
    }

    /** @return self|null null where it is not likely to happen at all */
    public static function of(Odds $odds): ?self
    {
        [$earliest, $likely, $latest] = [$odds->by(0.05), $odds->by(0.5), $odds->by(0.95)];

        return $earliest === null
            ? null
            : new self(
                Instant::ofEpoch($earliest),
                $latest === null ? null : Instant::ofEpoch($latest),
                $likely === null ? null : Instant::ofEpoch($likely),
            );
    }

    public function contains(Instant $instant): bool
    {
        return $instant->epoch >= $this->earliest->epoch
            && ($this->latest === null || $instant->epoch <= $this->latest->epoch);
    }
}
