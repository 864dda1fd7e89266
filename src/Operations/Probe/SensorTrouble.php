<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Series\SensorFaultKind;

/** Something that is wrong with a sensor now, and where it is. */
final readonly class SensorTrouble
{
    /**
     * @param string $label of the thermometer, or of the sensor where it is about all of it
     * @param Instant|null $since null where nobody knows
     * @param string|null $batchId the batch it is in
     * @param string|null $where the pit or place it is in
     * @param Span|null $skew how far its clock is off
     */
    public function __construct(
        public string $sensorId,
        public string $label,
        public SensorFaultKind $kind,
        public ?Instant $since,
        public ?string $batchId,
        public ?int $tag,
        public ?string $where,
        public ?Span $skew = null,
        public bool $isAhead = false,
    ) {
    }

    /** The same of another channel: said in one line. */
    public function with(self $other): self
    {
        $since = $this->since !== null && $other->since?->isAfter($this->since) === true ? $this->since : $other->since;

        $where = array_unique(array_filter([$this->where, $other->where], is_string(...)));

        return new self(
            $this->sensorId,
            $this->label.', '.$other->label,
            $this->kind,
            $since,
            $this->batchId ?? $other->batchId,
            $this->tag ?? $other->tag,
            $where === [] ? null : implode(', ', $where),
        );
    }
}
