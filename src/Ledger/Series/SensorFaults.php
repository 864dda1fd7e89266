<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Series\SensorFault;
use Verjuicer\Core\Series\SensorFaultKind;

/** Present and past faults of a site's channels. */
final readonly class SensorFaults
{
    public function __construct(private Connection $connection)
    {
    }

    /** A fault that began, or one that ended. */
    public function keep(string $siteId, string $channelId, SensorFault ...$faults): void
    {
        foreach ($faults as $fault) {
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO sensor_fault (channel_id, site_id, kind, from_at, until_at, count)
                VALUES (?, ?, ?, to_timestamp(?), to_timestamp(?), ?)
                ON CONFLICT (channel_id, kind, from_at) DO UPDATE SET until_at = excluded.until_at
                SQL,
                [$channelId, $siteId, $fault->kind->value, $fault->from, $fault->until, $fault->count],
            );
        }
    }

    /** @return array<string, list<SensorFault>> those that last, by channel */
    public function open(Site $site): array
    {
        /** @var list<array{channel_id: string, kind: string, from_at: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT channel_id, kind, extract(epoch FROM from_at)::bigint AS from_at FROM sensor_fault '
            .'WHERE site_id = ? AND until_at IS NULL ORDER BY from_at',
            [$site->id->toRfc4122()],
        );
        $open = [];
        foreach ($rows as $row) {
            $open[$row['channel_id']][] = new SensorFault(SensorFaultKind::from($row['kind']), $row['from_at'], null);
        }

        return $open;
    }

    /** @return list<SensorFault> of one channel, the latest first */
    public function of(string $channelId, int $most = 50): array
    {
        /** @var list<array{kind: string, from_at: int, until_at: int|null, count: int|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT kind, extract(epoch FROM from_at)::bigint AS from_at, extract(epoch FROM until_at)::bigint '
            .'AS until_at, count FROM sensor_fault WHERE channel_id = ? ORDER BY from_at DESC LIMIT ?',
            [$channelId, $most],
        );

        return array_map(
            static fn (array $row): SensorFault => new SensorFault(
                SensorFaultKind::from($row['kind']),
                $row['from_at'],
                $row['until_at'],
                $row['count'],
            ),
            $rows,
        );
    }

    /**
     * @return list<SensorFault> of one channel: the times in which nothing of it was taken for food, the latest first
     */
    public function noFood(string $channelId): array
    {
        return array_values(
            array_filter($this->of($channelId, 200), static fn (SensorFault $one): bool => $one->kind->isNoFood()),
        );
    }

    /** Ends the open faults of a reassigned channel. */
    public function end(string $channelId, Instant $at): void
    {
        $this->connection->executeStatement(
            'UPDATE sensor_fault SET until_at = ? WHERE channel_id = ? AND until_at IS NULL',
            [$at->rfc3339(), $channelId],
        );
    }
}
