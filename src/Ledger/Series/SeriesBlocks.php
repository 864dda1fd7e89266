<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/**
 * Hashes samples block by block, and each block is a link of the chain: a changed or removed sample is found, though
 * samples are too many to have a link each.
 */
final readonly class SeriesBlocks
{
    /** Seconds of samples in a block. */
    public const EVERY = 900;

    public function __construct(private Connection $connection, private Ledger $ledger, private Now $now)
    {
    }

    /**
     * Closes a block for each channel that got samples since its last one.
     *
     * @param bool $isAll also where the first of them came only just
     *
     * @return int how many
     */
    public function close(Site $site, bool $isAll = false): int
    {
        $now = $this->now->instant();
        /** @var list<array{channel_id: string, after_n: int, to_n: int}> $open */
        $open = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT c.id AS channel_id, coalesce(l.to_n, 0) AS after_n, s.to_n
            FROM sensor_channel c
            LEFT JOIN LATERAL (SELECT max(to_n) AS to_n FROM series_block b WHERE b.channel_id = c.id) l ON true
            CROSS JOIN LATERAL (SELECT max(n) AS to_n, min(received_at) AS since FROM series r
              WHERE r.channel_id = c.id AND r.n > coalesce(l.to_n, 0)) s
            WHERE c.site_id = ? AND s.to_n IS NOT NULL AND s.since <= to_timestamp(?)
            SQL,
            [$site->id->toRfc4122(), $now->epoch - ($isAll ? 0 : self::EVERY)],
        );
        if ($open === []) {
            return 0;
        }

        return $this->ledger->write($site, function () use ($site, $open, $now): int {
            foreach ($open as $one) {
                [$samples, $digest] = $this->digest($one['channel_id'], $one['after_n'], $one['to_n']);
                $this->connection->executeStatement(
                    'INSERT INTO series_block (id, site_id, channel_id, after_n, to_n, samples, digest, recorded_at) '
                    .'VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (channel_id, to_n) DO NOTHING',
                    [
                        Uuid::v7()->toRfc4122(),
                        $site->id->toRfc4122(),
                        $one['channel_id'],
                        $one['after_n'],
                        $one['to_n'],
                        $samples,
                        $digest,
                        $now->rfc3339(),
                    ],
                );
            }

            return \count($open);
        });
    }

    /** @return string|null the id of the first block with changed samples; null if all match */
    public function firstBroken(Site $site): ?string
    {
        /**
         * @var iterable<array{id: string, channel_id: string, after_n: int, to_n: int, samples: int,
         *     digest: string}> $blocks
         */
        $blocks = $this->connection->iterateAssociative(
            'SELECT id, channel_id, after_n, to_n, samples, digest FROM series_block WHERE site_id = ? ORDER BY to_n',
            [$site->id->toRfc4122()],
        );
        foreach ($blocks as $block) {
            [$samples, $digest] = $this->digest($block['channel_id'], $block['after_n'], $block['to_n']);
            if ($samples !== $block['samples'] || !hash_equals($block['digest'], $digest)) {
                return $block['id'];
            }
        }

        return null;
    }

    /** @return array{int, string} how many, and SHA-256 over a line each, in the order in which they came */
    private function digest(string $channelId, int $after, int $to): array
    {
        $hash = hash_init('sha256');
        $count = 0;
        /** @var iterable<array{line: string}> $rows */
        $rows = $this->connection->iterateAssociative(
            <<<'SQL'
            SELECT concat_ws('|', n, sequence, extract(epoch FROM device_at)::bigint, extract(epoch FROM at)::bigint,
              extract(epoch FROM received_at)::bigint, coalesce(tenths::text, '-'), coalesce(unit, '-')) AS line
            FROM series WHERE channel_id = ? AND n > ? AND n <= ? ORDER BY n
            SQL,
            [$channelId, $after, $to],
        );
        foreach ($rows as $row) {
            hash_update($hash, $row['line']."\n");
            ++$count;
        }

        return [$count, hash_final($hash)];
    }
}
