<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;

/** What a file said of an event that came in with it; who took it in answers for it, at the time it was recorded. */
final readonly class ImportOrigin
{
    public function __construct(public string $by, public ?Instant $saysRecordedAt)
    {
    }
}
