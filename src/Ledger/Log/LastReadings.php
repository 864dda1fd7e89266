<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The place and thermometer of a batch's last reading: defaults for an entry without them. */
final readonly class LastReadings
{
    private const AROUND_MINUTES = 15;

    public function __construct(private Connection $connection, private CheckpointedRecords $records)
    {
    }

    /**
     * The hand thermometer of this batch's last reading, unless it was retired since. Never a sensor: a manual reading
     * would appear as the sensor's.
     */
    public function thermometer(Batch $batch): ?string
    {
        $labels = [];
        foreach (array_reverse($this->records->of($batch)->rows->events) as $event) {
            if (
                $event->type === 'reading'
                && \is_string($event->thermometer ?? null)
                && ($event->logger ?? false) !== true
            ) {
                $labels[$event->thermometer] = true;
            }
        }
        /** @var list<string> $inUse */
        $inUse = $labels === [] ? [] : $this->connection->fetchFirstColumn(
            'SELECT label FROM thermometer WHERE site_id = ? AND label IN (?) AND retired_at IS NULL
               AND NOT EXISTS (SELECT 1 FROM sensor_channel c WHERE c.thermometer_id = thermometer.id)',
            [$batch->site->id->toRfc4122(), array_map(strval(...), array_keys($labels))],
            [1 => ArrayParameterType::STRING],
        );

        return array_values(array_intersect(array_map(strval(...), array_keys($labels)), $inUse))[0] ?? null;
    }

    /** Whether a sensor reads or has read it. */
    public function isProbed(Batch $batch): bool
    {
        foreach ($this->records->of($batch)->rows->events as $event) {
            if ($event->type === 'reading' && ($event->logger ?? false) === true) {
                return true;
            }
        }

        return false;
    }

    /** Whether it was read in the quarter of an hour before a moment, or since. */
    public function isReadAround(Batch $batch, Instant $at): bool
    {
        $shared = SharedEvents::of($batch);

        return $this->connection->fetchOne(
            <<<SQL
            SELECT 1 FROM event e WHERE ($shared->condition) AND e.type = 'reading' AND e.at >= :since LIMIT 1
            SQL,
            $shared->parameters + ['since' => $at->plus(Span::ofMinutes(-self::AROUND_MINUTES))->rfc3339()],
        ) !== false;
    }

    /** Whether it was pulled or chopped: then a pan is read, not its pieces. */
    public function isOneMass(Batch $batch): bool
    {
        $shared = SharedEvents::of($batch);

        return $this->connection->fetchOne(
            <<<SQL
            SELECT 1 FROM event e WHERE ($shared->condition) AND e.type = 'pull'
              AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id) LIMIT 1
            SQL,
            $shared->parameters,
        ) !== false;
    }

    /**
     * The unit a bare number is in: that of the last reading of this batch by this thermometer, or, where none is
     * named, by any; else that of the thermometer's last check; else the site's.
     */
    public function unit(Site $site, int $tag, ?string $thermometer): TemperatureUnit
    {
        $byIt = $thermometer === null ? '' : "AND e.members->>'thermometer' = :label";
        $member = $this->connection->fetchOne(
            <<<SQL
            SELECT coalesce(
                (SELECT CASE WHEN jsonb_exists(e.members->'temp', 'c') THEN 'c' ELSE 'f' END FROM event e
                 WHERE e.batch_id = (SELECT o.batch_id FROM open_tag o WHERE o.site_id = :site AND o.tag = :tag)
                   AND e.type = 'reading' $byIt
                   AND NOT EXISTS (SELECT 1 FROM event r WHERE r.batch_id = e.batch_id AND r.replaces = e.id)
                 ORDER BY e.seq DESC LIMIT 1),
                (SELECT CASE WHEN jsonb_exists(c.read, 'c') THEN 'c' ELSE 'f' END FROM thermometer_check c
                  JOIN thermometer t ON t.id = c.thermometer_id
                 WHERE t.site_id = :site AND t.label = :label ORDER BY c.seq DESC LIMIT 1)
            )
            SQL,
            ['site' => $site->id->toRfc4122(), 'tag' => $tag, 'label' => $thermometer ?? ''],
        );
        foreach (TemperatureUnit::cases() as $unit) {
            if ($unit->member() === $member) {
                return $unit;
            }
        }

        return $site->unit;
    }

    /**
     * @return list<array{piece: int, spot: string}> where the pieces were read, the latest reading first, each place
     *     once
     */
    public function places(Batch $batch): array
    {
        $places = [];
        $readings = Timeline::of($this->records->of($batch)->record, Instant::ofEpoch(\PHP_INT_MAX))->readings->all();
        foreach (array_reverse($readings) as $reading) {
            $places[$reading->track] ??= ['piece' => $reading->piece, 'spot' => $reading->spot];
        }

        return array_values($places);
    }
}
