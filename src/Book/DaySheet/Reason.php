<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\DaySheet;

use Verjuicer\Core\Measure\Instant;

/** Why a finding was left open, as it was said under the sheet of its day. */
final readonly class Reason
{
    public function __construct(public string $words, public Instant $at, public string $by)
    {
    }
}
