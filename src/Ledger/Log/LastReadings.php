<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;

/** Where and with what a batch was read last: what an entry that does not say so is taken to mean. */
final readonly class LastReadings
{
    private const AROUND_MINUTES = 15;

    public function __construct(private Connection $connection)
    {
    }

    /** The thermometer this batch was last read with, unless it was retired since. */
    public function thermometer(Batch $batch): ?string
    {
        $label = $this->connection->fetchOne(
            <<<'SQL'
            SELECT t.label FROM event e
            JOIN thermometer t ON t.site_id = ? AND t.label = e.members->>'thermometer' AND t.retired_at IS NULL
            WHERE e.batch_id = ? AND e.type = 'reading' ORDER BY e.seq DESC LIMIT 1
            SQL,
            [$batch->site->id->toRfc4122(), $batch->id->toRfc4122()],
        );

        return \is_string($label) ? $label : null;
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
        $member = $this->connection->fetchOne(
            <<<'SQL'
            SELECT coalesce(
                (SELECT CASE WHEN jsonb_exists(e.members->'temp', 'c') THEN 'c' ELSE 'f' END FROM event e
                  JOIN open_tag o ON o.batch_id = e.batch_id
                 WHERE o.site_id = :site AND o.tag = :tag AND e.type = 'reading'
                   AND (e.members->>'thermometer' = :label OR :label = '')
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
        $shared = SharedEvents::of($batch);

        /** @var list<array{piece: int, spot: string}> */
        return $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT (e.members->>'piece')::int AS piece, e.members->>'spot' AS spot FROM event e
            WHERE ($shared->condition) AND e.type = 'reading'
              AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            GROUP BY 1, 2 ORDER BY max(e.at) DESC, max(e.seq) DESC
            SQL,
            $shared->parameters,
        );
    }
}
