<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One reading of a lane. */
final readonly class LanePoint
{
    public function __construct(public Instant $at, public Temperature $temp, public string $track)
    {
    }
}
