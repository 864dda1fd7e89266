<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Check;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One check of a thermometer, as it was written down. */
final readonly class AccuracyCheck
{
    public function __construct(
        public string $id,
        public Instant $at,
        public string $by,
        public string $method,
        public Temperature $expected,
        public Temperature $read,
        public string $outcome,
        public ?int $pressureHpa,
        public bool $hasPassed,
    ) {
    }

    /** How far off it was, in tenths of its unit. */
    public function drift(): int
    {
        return $this->read->tenths - $this->expected->tenths;
    }
}
