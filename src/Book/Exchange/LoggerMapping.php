<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Zone;

/** How the table of a data logger is read: which columns, in which zone and unit, and where its readings belong. */
final readonly class LoggerMapping
{
    /** @param int $timeColumn counted from 0, $temperatureColumn likewise */
    public function __construct(
        public int $timeColumn,
        public int $temperatureColumn,
        public bool $hasHeader,
        public Zone $zone,
        public TemperatureUnit $unit,
        public int $piece,
        public string $spot,
        public ?string $thermometer,
    ) {
    }
}
