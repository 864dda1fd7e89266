<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** Where each channel was, when, and who said so: only ever added to, and in the chain. */
final readonly class Assignments
{
    private const SELECT = <<<'SQL'
    SELECT a.id, a.channel_id, extract(epoch FROM a.at)::bigint AS at, a.account_id, a.initials, a.target, a.pit_id,
           coalesce(p.name, a.place) AS place, a.batch_id, coalesce(a.piece, 1) AS piece,
           coalesce(a.spot, 'core') AS spot, b.tag, b.id IS NOT NULL AND o.batch_id IS NULL AS is_over
    FROM sensor_assignment a LEFT JOIN pit p ON p.id = a.pit_id LEFT JOIN batch b ON b.id = a.batch_id
    LEFT JOIN open_tag o ON o.batch_id = a.batch_id
    SQL;

    public function __construct(private Connection $connection, private Ledger $ledger, private Now $now)
    {
    }

    /**
     * @param Uuid $id made by the client: the same again is kept once
     *
     * @throws EventConflict if it lies ahead of now
     */
    public function put(
        Uuid $id,
        string $channelId,
        Account $by,
        Instant $at,
        ChannelTarget $target,
        ?Pit $pit = null,
        ?string $place = null,
        ?Batch $batch = null,
        int $piece = 1,
        string $spot = 'core',
    ): bool {
        if ($at->isAfter($this->now->instant())) {
            throw EventConflict::inTheFuture();
        }

        return $this->ledger->write(
            $by->site,
            fn (): bool => $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO sensor_assignment (id, site_id, channel_id, at, recorded_at, account_id, initials, target,
                  pit_id, place, batch_id, piece, spot)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING
                SQL,
                [
                    $id->toRfc4122(),
                    $by->site->id->toRfc4122(),
                    $channelId,
                    $at->rfc3339(),
                    $this->now->instant()->rfc3339(),
                    $by->id->toRfc4122(),
                    $by->initials,
                    $target->value,
                    $pit?->id->toRfc4122(),
                    $place,
                    $batch?->id->toRfc4122(),
                    $batch === null ? null : $piece,
                    $batch === null ? null : $spot,
                ],
            ) === 1,
        );
    }

    /** @return array<string, Assignment> where each channel is now, by channel */
    public function current(Site $site): array
    {
        return $this->byChannel(
            'WHERE a.site_id = ? AND NOT EXISTS (SELECT FROM sensor_assignment l WHERE l.channel_id = a.channel_id'
            .' AND l.seq > a.seq)',
            [$site->id->toRfc4122()],
        );
    }

    /**
     * @param list<string> $channelIds
     *
     * @return array<string, Assignment> where they are now, by channel
     */
    public function currentOf(array $channelIds): array
    {
        return $this->byChannel(
            'WHERE a.channel_id IN (?) AND NOT EXISTS (SELECT FROM sensor_assignment l'
            .' WHERE l.channel_id = a.channel_id AND l.seq > a.seq)',
            [$channelIds],
            [ArrayParameterType::STRING],
        );
    }

    /** @return list<Assignment> of one channel, the latest first */
    public function of(string $channelId, int $most = 50): array
    {
        return $this->read('WHERE a.channel_id = ? ORDER BY a.seq DESC LIMIT ?', [$channelId, $most]);
    }

    /** @return list<Assignment> of one batch, in order */
    public function ofBatch(string $batchId): array
    {
        return $this->read('WHERE a.batch_id = ? ORDER BY a.seq', [$batchId]);
    }

    /**
     * @param list<mixed> $parameters
     * @param list<ArrayParameterType> $types
     *
     * @return array<string, Assignment>
     */
    private function byChannel(string $where, array $parameters, array $types = []): array
    {
        $found = [];
        foreach ($this->read($where, $parameters, $types) as $one) {
            $found[$one->channelId] = $one;
        }

        return $found;
    }

    /**
     * @param list<mixed> $parameters
     * @param list<ArrayParameterType> $types
     *
     * @return list<Assignment>
     */
    private function read(string $rest, array $parameters, array $types = []): array
    {
        /**
         * @var list<array{id: string, channel_id: string, at: int, account_id: string, initials: string,
         *     target: string, pit_id: string|null, place: string|null, batch_id: string|null, piece: int,
         *     spot: string, tag: int|null, is_over: bool}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(self::SELECT.' '.$rest, $parameters, $types);

        return array_map(
            static fn (array $row): Assignment => new Assignment(
                $row['id'],
                $row['channel_id'],
                Instant::ofEpoch($row['at']),
                $row['account_id'],
                $row['initials'],
                ChannelTarget::from($row['target']),
                $row['pit_id'],
                $row['place'],
                $row['batch_id'],
                $row['piece'],
                $row['spot'],
                $row['tag'],
                $row['is_over'],
            ),
            $rows,
        );
    }
}
