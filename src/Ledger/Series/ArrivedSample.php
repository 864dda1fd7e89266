<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Series\Sample;

/** A sample as it came. */
final readonly class ArrivedSample
{
    /**
     * @param Instant $deviceAt by the clock of the sensor
     * @param Instant $at by ours
     */
    public function __construct(
        public string $channelId,
        public int $sequence,
        public Instant $deviceAt,
        public Instant $at,
        public ?Temperature $temp,
    ) {
    }

    /** Whether it says the same; a retry brings its own clock's time again. */
    public function isSameAs(self $other): bool
    {
        return $this->sequence === $other->sequence
            && $this->deviceAt->epoch === $other->deviceAt->epoch
            && $this->temp?->tenths === $other->temp?->tenths
            && $this->temp?->unit === $other->temp?->unit;
    }

    public function sample(): Sample
    {
        return new Sample($this->sequence, $this->at->epoch, $this->temp);
    }
}
