<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Sensor;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One plug of a sensor: a thermometer of the register, with its checks. */
final readonly class SensorChannel
{
    /**
     * @param string $label of its thermometer
     * @param int|null $lastSequence the highest number that came
     * @param Temperature|null $lastTemp null where nothing was plugged in
     * @param array<mixed> $state of its series so far
     */
    public function __construct(
        public string $id,
        public string $sensorId,
        public int $number,
        public string $thermometerId,
        public string $label,
        public ?int $lastSequence,
        public ?Instant $lastAt,
        public ?Temperature $lastTemp,
        public array $state,
    ) {
    }
}
