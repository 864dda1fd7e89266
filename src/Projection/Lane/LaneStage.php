<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Measure\Instant;

/** One stage of a lane. */
final readonly class LaneStage
{
    /** @param string $name of its kind in the open format */
    public function __construct(public string $name, public Instant $from, public ?Instant $to, public bool $isEnd)
    {
    }
}
