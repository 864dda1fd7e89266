<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail\Detail;

/** One thing that happened, never changed: a correction is another event that replaces it. */
final readonly class Event
{
    /** @param array<string, mixed> $unknown members of the format we do not know: kept, ignored */
    public function __construct(
        public string $id,
        public Instant $at,
        public string $by,
        public EventType $type,
        public Detail $detail,
        public ?string $replaces = null,
        public ?string $reason = null,
        public array $unknown = [],
    ) {
    }
}
