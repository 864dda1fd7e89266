<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\Core\Measure\Instant;

/** Why a finding was left open, as it was said under the sheet of its day. */
final readonly class OpenFindingReason
{
    public function __construct(public string $words, public Instant $at, public string $by)
    {
    }
}
