<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;

/** Events of lots, pits and thermometers: append-only, like those of a batch. */
final readonly class SiteLog
{
    private const COLUMNS =
        'id, subject_id, extract(epoch FROM at)::bigint AS at, extract(epoch FROM recorded_at)::bigint AS recorded_at,'
        .' account_id, initials, type, members';

    public function __construct(private Connection $connection, private Ledger $ledger, private Now $now)
    {
    }

    /**
     * @param 'lot'|'pit'|'thermometer' $subject
     * @param array<string, mixed> $members
     *
     * @return bool whether it is new; the same id again is kept once
     *
     * @throws EventConflict if it lies ahead of now
     */
    public function add(
        Uuid $id,
        string $subject,
        Uuid $subjectId,
        Account $by,
        Instant $at,
        string $type,
        array $members,
    ): bool {
        $now = $this->now->instant();
        if ($at->isAfter($now)) {
            throw EventConflict::inTheFuture();
        }

        return $this->ledger->write(
            $by->site,
            fn (): bool => $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO site_event (id, site_id, subject, subject_id, at, recorded_at, account_id, initials, type,
                  members)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                ON CONFLICT (id) DO NOTHING
                SQL,
                [
                    $id->toRfc4122(),
                    $by->site->id->toRfc4122(),
                    $subject,
                    $subjectId->toRfc4122(),
                    $at->rfc3339(),
                    $now->rfc3339(),
                    $by->id->toRfc4122(),
                    $by->initials,
                    $type,
                    json_encode((object) $members, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                ],
            ) === 1,
        );
    }

    /** @return list<SiteEvent> by the time they happened */
    public function of(Uuid $subject, int $most = 1000): array
    {
        $columns = self::COLUMNS;
        /**
         * @var list<array{id: string, subject_id: string, at: int, recorded_at: int, account_id: string,
         *     initials: string, type: string, members: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT $columns FROM (SELECT * FROM site_event WHERE subject_id = ? ORDER BY seq DESC
              LIMIT ?) AS latest ORDER BY latest.at, seq
            SQL,
            [$subject->toRfc4122(), $most],
        );

        return array_map(self::event(...), $rows);
    }

    public function find(Uuid $id): ?SiteEvent
    {
        /**
         * @var array{id: string, subject_id: string, at: int, recorded_at: int, account_id: string, initials: string,
         *     type: string, members: string}|false $row
         */
        $row = $this->connection->fetchAssociative(\sprintf('SELECT %s FROM site_event WHERE id = ?', self::COLUMNS), [
            $id->toRfc4122(),
        ]);

        return $row === false ? null : self::event($row);
    }

    /**
     * @param array{id: string, subject_id: string, at: int, recorded_at: int, account_id: string, initials: string,
     *     type: string, members: string} $row
     */
    private static function event(array $row): SiteEvent
    {
        $members = json_decode($row['members'], true, flags: \JSON_THROW_ON_ERROR);
        $named = \is_array($members) ? array_combine(array_map(strval(...), array_keys($members)), $members) : [];

        return new SiteEvent(
            $row['id'],
            $row['subject_id'],
            Instant::ofEpoch($row['at']),
            Instant::ofEpoch($row['recorded_at']),
            $row['account_id'],
            $row['initials'],
            $row['type'],
            $named,
        );
    }
}
