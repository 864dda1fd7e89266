<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The times batches went on the heat and came off it, by uncorrected entries: for plans, which decide nothing. */
final readonly class HeatTimes
{
    private const OFF = ['rest', 'hot_hold', 'cool', 'pull', 'slice', 'time_control', 'serve'];
    private const LATEST = 20;
    private const SQL = <<<'SQL'
        SELECT b.id, b.pieces, b.raw_grams AS grams, loaded.at AS loaded, loaded.tenths, loaded.unit,
               pulled.at AS pulled, w.with_what AS wrap, loaded.pit
        FROM batch b
        JOIN LATERAL (
            SELECT extract(epoch FROM e.at)::bigint AS at, e.members->>'pit' AS pit,
                   round(10 * coalesce(e.members->'set'->>'f', e.members->'set'->>'c')::numeric)::int AS tenths,
                   CASE WHEN jsonb_exists(e.members->'set', 'c') THEN 'C' ELSE 'F' END AS unit
            FROM event e WHERE e.batch_id = b.id AND e.type = 'cook'
              AND NOT EXISTS (SELECT 1 FROM event r WHERE r.batch_id = b.id AND r.replaces = e.id)
            ORDER BY e.at, e.seq LIMIT 1
        ) loaded ON true
        LEFT JOIN LATERAL (
            SELECT extract(epoch FROM e.at)::bigint AS at
            FROM event e WHERE e.batch_id = b.id AND e.type IN (:off) AND extract(epoch FROM e.at) > loaded.at
              AND NOT EXISTS (SELECT 1 FROM event r WHERE r.batch_id = b.id AND r.replaces = e.id)
            ORDER BY e.at, e.seq LIMIT 1
        ) pulled ON true
        LEFT JOIN LATERAL (
            SELECT coalesce(e.members->>'with', 'foil') AS with_what
            FROM event e WHERE e.batch_id = b.id AND e.type = 'wrap'
              AND NOT EXISTS (SELECT 1 FROM event r WHERE r.batch_id = b.id AND r.replaces = e.id)
            ORDER BY e.at, e.seq LIMIT 1
        ) w ON true
        SQL;

    public function __construct(private Connection $connection)
    {
    }

    /**
     * @param list<string> $batchIds
     *
     * @return array<string, HeatTime> by the id of the batch; those that were never on the heat are not among them
     */
    public function of(array $batchIds): array
    {
        return $batchIds === []
            ? []
            : array_column($this->read('WHERE b.id IN (:ids)', ['ids' => $batchIds]), null, 'batchId');
    }

    /**
     * @param Instant $since they went on the heat
     *
     * @return list<HeatTime> the latest cooks of a product that came off, the last to begin first
     */
    public function latest(Site $site, string $product, Instant $since, Instant $before): array
    {
        return array_values(
            $this->read(
                'WHERE b.site_id = :site AND lower(b.product_name) = lower(:product) AND b.parent_id IS NULL'
                .' AND pulled.at IS NOT NULL AND pulled.at < :before AND loaded.at >= :since'
                .' ORDER BY loaded.at DESC LIMIT '.self::LATEST,
                [
                    'site' => $site->id->toRfc4122(),
                    'product' => $product,
                    'since' => $since->epoch,
                    'before' => $before->epoch,
                ],
            ),
        );
    }

    /**
     * @param array<string, mixed> $parameters
     *
     * @return list<HeatTime>
     */
    private function read(string $which, array $parameters): array
    {
        /**
         * @var list<array{id: string, pieces: int, grams: int|null, loaded: int, tenths: int|null, unit: string,
         *     pulled: int|null, wrap: string|null, pit: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            self::SQL.' '.$which,
            $parameters + ['off' => self::OFF],
            ['off' => ArrayParameterType::STRING, 'ids' => ArrayParameterType::STRING],
        );

        return array_map(
            static fn (array $row): HeatTime => new HeatTime(
                $row['id'],
                $row['pieces'],
                $row['grams'],
                Instant::ofEpoch($row['loaded']),
                $row['pulled'] === null ? null : Instant::ofEpoch($row['pulled']),
                $row['tenths'] === null
                    ? null
                    : Temperature::ofTenths($row['tenths'], TemperatureUnit::from($row['unit'])),
                $row['wrap'],
                $row['pit'],
            ),
            $rows,
        );
    }
}
