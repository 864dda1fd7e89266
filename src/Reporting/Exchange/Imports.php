<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\Connection;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** The files of a site that were handed over: taken in by the worker, each once. */
final readonly class Imports
{
    private const TELL_EVERY = 1_000_000_000; // ns
    private const LOOKED_AT_FOR = 86_400; // seconds
    private const COLUMNS = <<<'SQL'
    i.id, i.account_id, a.initials AS by, extract(epoch FROM coalesce(i.asked_at, i.at))::bigint AS at, i.what,
    i.mapping, extract(epoch FROM i.finished_at)::bigint AS finished_at, i.added, i.known, i.problem, i.done, i.total,
    extract(epoch FROM i.told_at)::bigint AS told_at, i.stopped_at IS NOT NULL AS is_stopped, i.batch_id,
    i.asked_at IS NOT NULL AS is_asked
    SQL;

    public function __construct(
        private Connection $connection,
        private MessageBusInterface $bus,
        private Now $now,
    ) {
    }

    /**
     * Keeps a file that is looked at, until it is asked for. One that was not all taken in is gone on with instead.
     *
     * @param string|null $text null where it lies elsewhere
     * @param string $digest SHA-256 of it
     * @param string $mapping JSON: how a logger's table is read
     */
    public function keep(
        Uuid $id,
        Account $by,
        ImportKind $what,
        ?string $text,
        string $digest,
        string $mapping = '{}',
    ): Import {
        $site = $by->site->id->toRfc4122();
        $unfinished = $this->read(
            'i.site_id = ? AND i.digest = ? AND i.finished_at IS NULL AND i.asked_at IS NOT NULL AND i.mapping = ?',
            [$site, $digest, $mapping],
            1,
        )[0] ?? null;
        if ($unfinished !== null) {
            return $unfinished;
        }
        $now = $this->now->instant();
        // A preview not confirmed within a day is dropped.
        $this->connection->executeStatement(
            'UPDATE import SET text = NULL WHERE site_id = ? AND asked_at IS NULL AND at < ?',
            [$site, Instant::ofEpoch($now->epoch - self::LOOKED_AT_FOR)->rfc3339()],
        );
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO import (id, site_id, account_id, at, what, mapping, text, digest)
            VALUES (?, ?, ?, ?, ?, ?, ?, ?)
            ON CONFLICT (id) DO UPDATE SET what = excluded.what, mapping = excluded.mapping, text = excluded.text,
                digest = excluded.digest
            WHERE import.asked_at IS NULL AND import.account_id = excluded.account_id
            SQL,
            [
                $id->toRfc4122(),
                $site,
                $by->id->toRfc4122(),
                $now->rfc3339(),
                $what->value,
                $mapping,
                $text,
                $digest,
            ],
        );

        return $this->find($id->toRfc4122()) ?? throw new \LogicException('It was kept a moment ago.');
    }

    /** Has the worker take it in, or go on where it was stopped. */
    public function ask(Import $import): void
    {
        $this->begin($import);
        $this->bus->dispatch(new ImportFile($import->id));
    }

    public function begin(Import $import): void
    {
        $this->connection->executeStatement(
            'UPDATE import SET asked_at = :now, told_at = :now, stopped_at = NULL, problem = NULL '
            .'WHERE id = :id AND finished_at IS NULL',
            ['now' => $this->now->instant()->rfc3339(), 'id' => $import->id],
        );
    }

    public function stop(Import $import): void
    {
        $this->connection->executeStatement(
            'UPDATE import SET stopped_at = ? WHERE id = ? AND finished_at IS NULL',
            [$this->now->instant()->rfc3339(), $import->id],
        );
    }

    /**
     * Imports it, unless another worker is doing so.
     *
     * @param \Closure(): void $take
     *
     * @return bool whether it did
     */
    public function alone(Import $import, \Closure $take): bool
    {
        $key = "hashtextextended('import ' || ?, 0)";
        if ($this->connection->fetchOne("SELECT pg_try_advisory_lock($key)", [$import->id]) !== true) {
            return false;
        }
        try {
            $take();
        } finally {
            $this->connection->fetchOne("SELECT pg_advisory_unlock($key)", [$import->id]);
        }

        return true;
    }

    public function find(string $id): ?Import
    {
        return $this->read('i.id = ?', [$id], 1)[0] ?? null;
    }

    /** @return list<Import> the latest first */
    public function of(Site $site, int $most): array
    {
        return $this->read('i.site_id = ? AND i.asked_at IS NOT NULL', [$site->id->toRfc4122()], $most);
    }

    public function text(Import $import): string
    {
        $text = $this->connection->fetchOne('SELECT text FROM import WHERE id = ?', [$import->id]);

        return \is_string($text) ? $text : '';
    }

    /** Content of records need not be stored a second time; refused content is kept as it was. */
    public function finish(Import $import, ImportReport $report): void
    {
        $first = $report->refused[0] ?? null;
        $problem = $first === null ? null : \sprintf('line %d: %s', $first['line'], $first['why']);
        $this->connection->executeStatement(
            <<<'SQL'
            UPDATE import SET finished_at = :at, added = :added, known = :known, problem = :problem,
                   text = CASE WHEN :problem::text IS NULL THEN NULL ELSE text END
            WHERE id = :id
            SQL,
            [
                'at' => $this->now->instant()->rfc3339(),
                'added' => $first === null ? $report->new : 0,
                'known' => $report->known,
                'problem' => $problem,
                'id' => $import->id,
            ],
        );
    }

    /**
     * Tells how far it is, once a second at the most, and hears whether it is to stop.
     *
     * @param (\Closure(): bool)|null $isStopped an additional check
     */
    public function taking(Import $import, ?\Closure $isStopped = null): ImportProgress
    {
        $last = 0;
        $told = function (ImportProgress $taking) use ($import, $isStopped, &$last): void {
            $isToStop = $isStopped !== null && $isStopped();
            if (!$isToStop && hrtime(true) - $last < self::TELL_EVERY) {
                return;
            }
            $last = hrtime(true);
            if ($isToStop) {
                $this->stop($import);
            }
            $isRunning = $this->connection->fetchOne(
                'UPDATE import SET done = ?, total = ?, told_at = ? WHERE id = ? RETURNING stopped_at IS NULL',
                [$taking->done, $taking->total, $this->now->instant()->rfc3339(), $import->id],
            );
            if ($isRunning !== true) {
                throw new ImportCancelled();
            }
        };
        $kept = function (?string $batchId) use ($import): void {
            $this->connection->update('import', ['batch_id' => $batchId], ['id' => $import->id]);
        };

        return new ImportProgress($import->batchId, $told, $kept);
    }

    /** @return array<string, string> codes of the batches that are not all taken in, by their ids */
    public function unfinished(Site $site): array
    {
        /** @var array<string, string> */
        return $this->connection->fetchAllKeyValue(
            'SELECT b.id, b.code FROM import i JOIN batch b ON b.id = i.batch_id WHERE b.site_id = ? ORDER BY b.code',
            [$site->id->toRfc4122()],
        );
    }

    public function fail(Import $import, string $problem): void
    {
        $this->connection->executeStatement('UPDATE import SET problem = ? WHERE id = ?', [
            mb_substr($problem, 0, 500),
            $import->id,
        ]);
    }

    /**
     * @param list<string> $parameters
     *
     * @return list<Import>
     */
    private function read(string $where, array $parameters, int $most): array
    {
        $columns = self::COLUMNS;
        /**
         * @var list<array{id: string, account_id: string, by: string, at: int, what: string, mapping: string,
         *     finished_at: int|null, added: int|null, known: int|null, problem: string|null, done: int,
         *     total: int|null, told_at: int|null, is_stopped: bool, batch_id: string|null, is_asked: bool}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $columns FROM import i JOIN account a ON a.id = i.account_id WHERE $where ORDER BY i.at DESC, "
            ."i.id DESC LIMIT $most",
            $parameters,
        );

        return array_map(
            static fn (array $row): Import => new Import(
                $row['id'],
                $row['account_id'],
                $row['by'],
                Instant::ofEpoch($row['at']),
                ImportKind::from($row['what']),
                $row['mapping'],
                $row['finished_at'] === null ? null : Instant::ofEpoch($row['finished_at']),
                $row['added'],
                $row['known'],
                $row['problem'],
                $row['done'],
                $row['total'],
                $row['told_at'] === null ? null : Instant::ofEpoch($row['told_at']),
                $row['is_stopped'],
                $row['batch_id'],
                $row['is_asked'],
            ),
            $rows,
        );
    }
}
