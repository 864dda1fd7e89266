<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;

/** How the table of a data logger is read: which columns, in which zone and unit, and where its readings belong. */
final readonly class LoggerMapping
{
    /** @param int $timeColumn counted from 0, $temperatureColumn likewise */
    public function __construct(
        public string $batchId,
        public int $timeColumn,
        public int $temperatureColumn,
        public bool $hasHeader,
        public TimeZone $zone,
        public TemperatureUnit $unit,
        public int $piece,
        public string $spot,
        public ?string $thermometer,
    ) {
    }

    public function json(): string
    {
        return json_encode(['zone' => $this->zone->name] + get_object_vars($this), \JSON_THROW_ON_ERROR);
    }

    /** @param string $json as `json` wrote it */
    public static function ofJson(string $json): self
    {
        /**
         * @var array{batchId: string, timeColumn: int, temperatureColumn: int, hasHeader: bool, zone: string,
         *     unit: string, piece: int, spot: string, thermometer: string|null} $of
         */
        $of = json_decode($json, true, flags: \JSON_THROW_ON_ERROR);

        return new self(
            $of['batchId'],
            $of['timeColumn'],
            $of['temperatureColumn'],
            $of['hasHeader'],
            TimeZone::named($of['zone']),
            TemperatureUnit::from($of['unit']),
            $of['piece'],
            $of['spot'],
            $of['thermometer'],
        );
    }
}
