<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Ruleset\StricterLimits;

/** Where the batch was made: its clock on the wall and the unit it thinks in. */
final readonly class RecordedSite
{
    /**
     * @param array<string, mixed> $extensions unknown members: kept, ignored
     * @param list<Procedure>|null $procedures in writing; null where the record does not say
     */
    public function __construct(
        public ?string $name,
        public TimeZone $zone,
        public TemperatureUnit $unit,
        public ?int $elevationM,
        public array $extensions = [],
        public StricterLimits $house = new StricterLimits(),
        public ?array $procedures = null,
    ) {
    }
}
