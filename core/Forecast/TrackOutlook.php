<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Temperature;

/** When one place of a cook will be done. */
final readonly class TrackOutlook
{
    /**
     * @param string $track piece and spot, "1/core"
     * @param Crossing|null $crossing null where it is done, or where it is not likely to be
     */
    public function __construct(
        public string $track,
        public Temperature $target,
        public bool $isReached,
        public ?Crossing $crossing,
    ) {
    }

    public function piece(): int
    {
        return (int) $this->track;
    }
}
