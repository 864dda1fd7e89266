<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;

/** Reads links of the chain of a site, and the rows they are of in their canonical form. */
final readonly class ChainLinks
{
    private const AT_ONCE = 2000;
    public const KINDS = [
        'batch',
        'event',
        'site_event',
        'lot',
        'batch_lot',
        'thermometer_check',
        'day_sign',
        'day_said',
        'batch_fact',
        'site_change',
        'account_change',
        'sensor_assignment',
        'series_block',
        'alarm_event',
        'row_kept',
        'row_author',
        'day_close',
        'clock_word',
        'site_key',
        'chain_rollback',
        'procedure_version',
        'procedure_training',
        'procedure_scan',
    ];

    /** Columns added later: where they say nothing they are not in the canonical form. */
    private const ADDED = ['batch' => ['piece_numbers', 'treatments'], 'day_sign' => ['until', 'breaks', 'proof']];

    public function __construct(private Connection $connection)
    {
    }

    /**
     * In the order of the chain, with their rows; many at once. Within UTC: see `inUtc()`.
     *
     * @return list<array{position: int, kind: string, row_id: string, recorded: string, form: int, hash: string,
     *     row_digest: string|null, canonical: string|null}> the canonical form is null where the row is gone
     */
    public function after(Site $site, int $position, ?int $to = null): array
    {
        $canonical = self::canonical();

        /**
         * @var list<array{position: int, kind: string, row_id: string, recorded: string, form: int, hash: string,
         *     row_digest: string|null, canonical: string|null}>
         */
        return $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT l.position, l.kind, l.row_id, encode(l.hash, 'hex') AS hash, l.form,
                   to_char(l.recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS recorded,
                   encode(l.row_digest, 'hex') AS row_digest, $canonical AS canonical
            FROM chain_link l WHERE l.site_id = ? AND l.position > ? AND l.position <= ? ORDER BY l.position LIMIT ?
            SQL,
            [$site->id->toRfc4122(), $position, $to ?? \PHP_INT_MAX, self::AT_ONCE],
        );
    }

    /**
     * The same without the rows.
     *
     * @return \Generator<array{position: int, kind: string, row_id: string, recorded: string, form: int, hash: string,
     *     row_digest: string|null}>
     */
    public function between(Site $site, int $from, int $to): \Generator
    {
        /**
         * @var iterable<array{position: int, kind: string, row_id: string, recorded: string, form: int, hash: string,
         *     row_digest: string|null}> $links
         */
        $links = $this->connection->iterateAssociative(
            <<<'SQL'
            SELECT l.position, l.kind, l.row_id, encode(l.hash, 'hex') AS hash, l.form,
                   to_char(l.recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS recorded,
                   encode(l.row_digest, 'hex') AS row_digest
            FROM chain_link l WHERE l.site_id = ? AND l.position BETWEEN ? AND ? ORDER BY l.position
            SQL,
            [$site->id->toRfc4122(), $from, $to],
        );
        yield from $links;
    }

    /**
     * Within UTC.
     *
     * @param list<string> $ids of rows of one kind
     *
     * @return list<array{position: int, kind: string, row_id: string, form: int, canonical: string}>
     */
    public function ofRows(Site $site, string $kind, array $ids): array
    {
        if ($ids === []) {
            return [];
        }
        $canonical = self::canonical();

        /** @var list<array{position: int, kind: string, row_id: string, form: int, canonical: string}> */
        return $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT l.position, l.kind, l.row_id, l.form, $canonical AS canonical
            FROM chain_link l WHERE l.site_id = :site AND l.kind = :kind AND l.row_id IN (:ids) ORDER BY l.position
            SQL,
            ['site' => $site->id->toRfc4122(), 'kind' => $kind, 'ids' => $ids],
            ['ids' => ArrayParameterType::STRING],
        );
    }

    /**
     * The canonical form has its times in UTC, regardless of the connection's time zone.
     *
     * @template T
     *
     * @param \Closure(): T $read
     *
     * @return T
     */
    public function inUtc(\Closure $read): mixed
    {
        return $this->connection->transactional(function () use ($read): mixed {
            $this->connection->executeStatement("SET LOCAL timezone = 'UTC'");

            return $read();
        });
    }

    /** SQL of the row of link `l`, as chain_canonical() makes it: many at once. */
    private static function canonical(): string
    {
        $cases = '';
        foreach (self::KINDS as $kind) {
            // Of a scan its digest is hashed, not its bytes.
            $row = $kind === 'procedure_scan' ? "to_jsonb(r) - 'content'" : 'to_jsonb(r)';
            foreach (self::ADDED[$kind] ?? [] as $column) {
                $row .= " - CASE WHEN r.$column IS NULL THEN '$column' ELSE '' END";
            }
            $cases .= " WHEN '$kind' THEN (SELECT ($row)::text FROM $kind r WHERE r.id = l.row_id)";
        }

        return "CASE l.kind$cases END";
    }
}
