<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** A counted reading in its place in the record. */
final readonly class TrackReading
{
    /** Ninetieths of a degree Celsius, for comparing many readings. */
    public int $level;

    /**
     * @param int $at seconds since 1970, UTC
     * @param int $order place among all counted events
     * @param string $track piece and spot, "1/core"
     * @param OmittedReadings|null $leftOut omitted readings of an abridged record before it
     */
    public function __construct(
        public string $id,
        public int $at,
        public int $order,
        public Temperature $temp,
        public int $piece,
        public string $spot,
        public string $track,
        public ?string $thermometer,
        public ?OmittedReadings $leftOut = null,
    ) {
        $this->level = $temp->ninetieths;
    }

    /** Whether the reading before it on its track is the one that was read before it. */
    public function follows(): bool
    {
        return $this->leftOut === null || $this->leftOut->count === 0;
    }

    public function instant(): Instant
    {
        return Instant::ofEpoch($this->at);
    }
}
