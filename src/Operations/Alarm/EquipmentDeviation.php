<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\App\Projection\Lane\Lane;

/** A place that is not as it must be, and what is in it. */
final readonly class EquipmentDeviation
{
    /**
     * @param string $key the same as long as it lasts
     * @param string $reads what it reads, in words
     * @param string $limit what it must be
     * @param array<string, Lane> $inside the batches in it, by id
     */
    public function __construct(
        public string $key,
        public EquipmentDeviationKind $kind,
        public string $name,
        public string $reads,
        public string $limit,
        public string $door,
        public array $inside,
    ) {
    }
}
