<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\Core\Measure\Instant;

/** One message of a sensor that could not be recorded. */
final readonly class DeadLetter
{
    public function __construct(
        public string $sensorId,
        public string $sensor,
        public string $digest,
        public string $cameBy,
        public string $payload,
        public string $problem,
        public int $failures,
        public Instant $lastAt,
    ) {
    }
}
