<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Access\AccessToken;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** Messages of sensors that could not be recorded, whatever was tried: kept whole, and shown until somebody looked. */
final readonly class DeadLetters
{
    private const MOST = 50;
    private const MOST_BYTES = 100_000;

    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /** @param string $cameBy 'http' or 'mqtt' */
    public function keep(AccessToken $token, string $payload, string $cameBy, \Throwable $problem): void
    {
        $now = $this->now->instant()->rfc3339();
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO dead_letter (site_id, sensor_id, digest, came_by, payload, problem, first_at, last_at)
            VALUES (?, ?, ?, ?, ?, ?, ?, ?)
            ON CONFLICT (sensor_id, digest) DO UPDATE SET
              failures = dead_letter.failures + 1, last_at = excluded.last_at, problem = excluded.problem
            SQL,
            [
                $token->siteId,
                $token->sensorId,
                hash('sha256', $payload),
                $cameBy,
                // PostgreSQL keeps no zero bytes in a text.
                str_replace("\0", '�', mb_strcut(mb_scrub($payload), 0, self::MOST_BYTES)),
                mb_strcut(mb_scrub($problem->getMessage()), 0, 500),
                $now,
                $now,
            ],
        );
    }

    /** @return list<DeadLetter> nobody looked at yet, the latest first */
    public function of(Site $site): array
    {
        /**
         * @var list<array{sensor_id: string, sensor: string, digest: string, came_by: string, payload: string,
         *     problem: string, failures: int, last_at: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT d.sensor_id, s.name AS sensor, d.digest, d.came_by, d.payload, d.problem, d.failures,
                   extract(epoch FROM d.last_at)::bigint AS last_at
            FROM dead_letter d JOIN sensor s ON s.id = d.sensor_id
            WHERE d.site_id = ? AND d.looked_at IS NULL ORDER BY d.last_at DESC LIMIT ?
            SQL,
            [$site->id->toRfc4122(), self::MOST],
        );

        return array_map(
            static fn (array $row): DeadLetter => new DeadLetter(
                $row['sensor_id'],
                $row['sensor'],
                $row['digest'],
                $row['came_by'],
                $row['payload'],
                $row['problem'],
                $row['failures'],
                Instant::ofEpoch($row['last_at']),
            ),
            $rows,
        );
    }

    /** Somebody looked at it: it is kept, and asks for nothing more. */
    public function lookedAt(Account $by, string $sensorId, string $digest): void
    {
        $this->connection->executeStatement(
            'UPDATE dead_letter SET looked_at = ?, looked_at_by = ? WHERE site_id = ? AND sensor_id::text = ? '
            .'AND digest = ? AND looked_at IS NULL',
            [
                $this->now->instant()->rfc3339(),
                $by->id->toRfc4122(),
                $by->site->id->toRfc4122(),
                $sensorId,
                $digest,
            ],
        );
    }
}
