<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** The files of a site that were handed over: taken in by the worker, each once. */
final readonly class Imports
{
    private const TELL_EVERY = 1_000_000_000; // ns
    private const COLUMNS = <<<'SQL'
    i.id, i.account_id, a.initials AS by, extract(epoch FROM i.at)::bigint AS at, i.what, i.mapping,
    extract(epoch FROM i.finished_at)::bigint AS finished_at, i.added, i.known, i.problem,
    i.done, i.total
    SQL;

    public function __construct(
        private Connection $connection,
        private MessageBusInterface $bus,
        private Tenant $tenant,
        private Now $now,
    ) {
    }

    /** @param string $mapping JSON: how a logger's table is read */
    public function ask(Uuid $id, Account $by, ImportKind $what, string $text, string $mapping = '{}'): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO import (id, site_id, account_id, at, what, mapping, text) VALUES (?, ?, ?, ?, ?, ?,
              ?) ON CONFLICT (id) DO NOTHING
            SQL,
            [
                $id->toRfc4122(),
                $by->site->id->toRfc4122(),
                $by->id->toRfc4122(),
                $this->now->instant()->rfc3339(),
                $what->value,
                $mapping,
                $text,
            ],
        );
        $this->bus->dispatch(new TakeIn($id->toRfc4122()));
    }

    public function find(string $id): ?Import
    {
        return $this->read('i.id = ?', [$id], 1)[0] ?? null;
    }

    /** @return list<Import> the latest first */
    public function of(Site $site, int $most): array
    {
        return $this->read('i.site_id = ?', [$site->id->toRfc4122()], $most);
    }

    public function text(Import $import): string
    {
        $text = $this->connection->fetchOne('SELECT text FROM import WHERE id = ?', [$import->id]);

        return \is_string($text) ? $text : '';
    }

    /** What is in the records need not be kept a second time; what was refused is kept as it was. */
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
     * Tells how far it is, once a second at the most: beside the transaction that takes the file in, which shows
     * nothing of itself until it is over.
     *
     * @return \Closure(int, int): void
     */
    public function progress(Import $import): \Closure
    {
        // Never the one that is kept: that is in the transaction. A new one is in no site until it says so.
        $beside = DriverManager::getConnection(['driverOptions' => []] + $this->connection->getParams());
        $beside->executeStatement("SELECT set_config('verjuicer.site', ?, false)", [
            $this->tenant->site()?->toRfc4122() ?? '',
        ]);
        $last = 0;

        return static function (int $done, int $total) use ($beside, $import, &$last): void {
            if (hrtime(true) - $last < self::TELL_EVERY) {
                return;
            }
            $last = hrtime(true);
            $beside->update('import', ['done' => $done, 'total' => $total], ['id' => $import->id]);
        };
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
         *     total: int|null}> $rows
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
            ),
            $rows,
        );
    }
}
