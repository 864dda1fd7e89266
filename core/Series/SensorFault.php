<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

use Verjuicer\Core\Measure\Instant;

/** Something that is wrong with a channel, or was. */
final readonly class SensorFault
{
    /**
     * @param int $from seconds since 1970
     * @param int|null $until null while it lasts
     * @param int|null $count how many readings are missing, of that kind
     */
    public function __construct(
        public SensorFaultKind $kind,
        public int $from,
        public ?int $until,
        public ?int $count = null,
    ) {
    }

    public function fromInstant(): Instant
    {
        return Instant::ofEpoch($this->from);
    }

    public function untilInstant(): ?Instant
    {
        return $this->until === null ? null : Instant::ofEpoch($this->until);
    }
}
