<?php

declare(strict_types=1);

namespace Verjuicer\Core\Pit;

use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One thing written down at a pit. */
final readonly class PitEntry
{
    public function __construct(public Instant $at, public PitSign $sign, public ?Temperature $temp = null)
    {
    }
}
