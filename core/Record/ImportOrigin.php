<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;

/** An event's recording data from its file; the person who imported it answers for it from the time of the import. */
final readonly class ImportOrigin
{
    public function __construct(public string $by, public ?Instant $saysRecordedAt)
    {
    }
}
