<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Projection\Lane\LanePoint;

/** A spot of the cook that was read and left: what became of it decides whether it counts. */
final readonly class AbandonedSpot
{
    public string $piece;

    public string $spot;

    /** @param string $when it was last read, as the kitchen writes it */
    public function __construct(public LanePoint $point, public string $when)
    {
        [$this->piece, $this->spot] = explode('/', $point->track, 2) + [1 => ''];
    }
}
