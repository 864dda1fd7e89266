<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** A thermometer held against a known temperature, both in one unit. */
final readonly class ThermometerCheck
{
    /** @param array<string, mixed> $extensions unknown members: kept, ignored */
    public function __construct(
        public Instant $at,
        public ?string $method,
        public Temperature $expected,
        public Temperature $read,
        public array $extensions = [],
    ) {
    }
}
