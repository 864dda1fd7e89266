<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;

/**
 * The background processes: when each last ran, since when it has run without a pause, and whether it keeps restarting.
 * A process that never ran, as in a kitchen without sensors, is not missed.
 *
 * Times are the database's: a frozen process does not beat, and its own clock may stand still.
 */
final class BackgroundProcesses
{
    public const WATCH = 'watch';
    public const LISTENER = 'listen';

    /** Seconds without a beat after which each is late. */
    private const LATE = [self::WATCH => 30, self::LISTENER => 60];
    /** Seconds without a beat of the leader after which another instance takes over. */
    private const LEASE = 15;
    /** So many starts within so many seconds are a loop. */
    private const LOOP_STARTS = 4;
    private const LOOP_SECONDS = 120;

    private readonly string $me;

    public function __construct(private readonly Connection $connection)
    {
        $this->me = Uuid::v4()->toRfc4122();
    }

    /** A process began. */
    public function started(string $name): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO background_process AS p (name, holder, at, since, starts)
            VALUES (:name, '', '-infinity', now(), jsonb_build_array(extract(epoch FROM now())::bigint))
            ON CONFLICT (name) DO UPDATE SET starts = (
                SELECT jsonb_agg(one ORDER BY one) FROM (
                    SELECT value::bigint AS one FROM jsonb_array_elements(p.starts)
                    WHERE value::bigint > extract(epoch FROM now())::bigint - :seconds
                    UNION ALL SELECT extract(epoch FROM now())::bigint
                ) AS latest
            )
            SQL,
            ['name' => $name, 'seconds' => self::LOOP_SECONDS],
        );
    }

    /**
     * Says that it runs.
     *
     * @return bool whether this instance leads: another, that beat within the last seconds, goes before it
     */
    public function beat(string $name): bool
    {
        return $this->connection->executeStatement(
            <<<'SQL'
            UPDATE background_process SET
                since = CASE WHEN at < now() - make_interval(secs => :late) THEN now() ELSE since END,
                holder = :me, at = now()
            WHERE name = :name AND (holder = :me OR at < now() - make_interval(secs => :lease))
            SQL,
            ['name' => $name, 'me' => $this->me, 'late' => self::LATE[$name] ?? 60, 'lease' => self::LEASE],
        ) === 1;
    }

    /** A process ends: another need not wait for it. */
    public function ended(string $name): void
    {
        $this->connection->executeStatement(
            "UPDATE background_process SET holder = '' WHERE name = ? AND holder = ?",
            [$name, $this->me],
        );
    }

    /** @return array<string, bool> whether each that ever ran runs, and does not begin again and again */
    public function health(): array
    {
        $health = [];
        foreach ($this->rows() as $name => $row) {
            $health[$name] = $row['silent'] <= (self::LATE[$name] ?? 60) && $row['starts'] < self::LOOP_STARTS;
        }

        return $health;
    }

    /** Seconds since it last ran, if that is longer than may be; null where it runs, or never did. */
    public function lateBy(string $name): ?int
    {
        $silent = $this->rows()[$name]['silent'] ?? 0;

        return $silent > (self::LATE[$name] ?? 60) ? $silent : null;
    }

    public function isLooping(string $name): bool
    {
        return ($this->rows()[$name]['starts'] ?? 0) >= self::LOOP_STARTS;
    }

    /** Seconds for which it has run without a pause; null where it does not run, or never did. */
    public function upFor(string $name): ?int
    {
        $row = $this->rows()[$name] ?? null;

        return $row === null || $row['silent'] > (self::LATE[$name] ?? 60) ? null : $row['up'];
    }

    /** @return array<string, array{silent: int, up: int, starts: int}> by name */
    private function rows(): array
    {
        /** @var array<string, array{silent: int, up: int, starts: int}> */
        return $this->connection->fetchAllAssociativeIndexed(
            <<<'SQL'
            SELECT name, least(extract(epoch FROM now() - greatest(at, '2000-01-01')), 2e9)::bigint AS silent,
                   extract(epoch FROM now() - since)::bigint AS up,
                   (SELECT count(*) FROM jsonb_array_elements(starts)
                    WHERE value::bigint > extract(epoch FROM now())::bigint - :seconds)::bigint AS starts
            FROM background_process
            SQL,
            ['seconds' => self::LOOP_SECONDS],
        );
    }
}
