<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Proof\Statement;

/**
 * Compares rows that may change (settings, people, thermometers, products, pits and similar) with their last copies in
 * the chain. A change made outside the application differs from its copy.
 */
final readonly class MutableRows
{
    /** Tables, and the column that says whose a row is. */
    private const TABLES = [
        'site' => 'id',
        'account' => 'site_id',
        'thermometer' => 'site_id',
        'product' => 'site_id',
        'recipe' => 'site_id',
        'pit' => 'site_id',
        'hold_unit' => 'site_id',
        'supplier' => 'site_id',
        'packet' => 'site_id',
        'label' => 'site_id',
    ];

    private const MOST = 50;

    public function __construct(private Connection $connection, private SiteKeys $keys, private KeyLog $keyLog)
    {
    }

    /**
     * Changes that no key of the site signed, since the first that one did: before that there were no signatures.
     *
     * @return list<UnauthoredChange> in order, at most 50
     */
    public function unauthored(Site $site): array
    {
        // The first changes of a site are signed before its first key stands in the chain.
        $keys = array_values(array_unique([
            ...array_column($this->keyLog->of($site), 'publicKey'),
            ...$this->keys->isThere($site) ? $this->keys->publicKeys($site) : [],
        ]));
        /**
         * @var iterable<array{id: string, of_table: string, row_id: string, position: int|null, at: int,
         *     digest: string, changed: string|null, signature: string|null, initials: string|null}> $rows
         */
        $rows = $this->connection->iterateAssociative(
            <<<'SQL'
            WITH told AS (
                SELECT k.*, lag(k.content) OVER (PARTITION BY k.of_table, k.row_id ORDER BY k.seq) AS before
                FROM row_kept k WHERE k.site_id = :site AND k.of_table IN (:tables)
            )
            SELECT k.id, k.of_table, k.row_id, l.position, extract(epoch FROM k.recorded_at)::bigint AS at,
                   encode(sha256(convert_to(k.content::text, 'UTF8')), 'hex') AS digest, a.signature, a.initials,
                   (SELECT string_agg(e.key || ' was ' || coalesce((k.before->e.key)::text, '–') || ', is '
                           || e.value::text, '; ' ORDER BY e.key)
                    FROM jsonb_each(k.content) e WHERE k.before IS NOT NULL
                      AND k.before->e.key IS DISTINCT FROM e.value) AS changed
            FROM told k LEFT JOIN chain_link l ON l.kind = 'row_kept' AND l.row_id = k.id AND l.site_id = k.site_id
            LEFT JOIN row_author a ON a.kept_id = k.id
            ORDER BY k.seq
            SQL,
            ['site' => $site->id->toRfc4122(), 'tables' => array_keys(AuthoredChanges::TABLES)],
            ['tables' => ArrayParameterType::STRING],
        );
        $isSigned = false;
        $found = [];
        foreach ($rows as $row) {
            $said = Statement::change($site->id->toRfc4122(), $row['id'], $row['digest'], $row['initials'] ?? '');
            $isOurs = Statement::isSignedByAny($keys, $said, $row['signature']);
            $isSigned = $isSigned || $isOurs;
            if ($isSigned && !$isOurs && \count($found) < self::MOST) {
                $found[] = new UnauthoredChange(
                    $row['of_table'],
                    $row['row_id'],
                    $row['position'] ?? 0,
                    Instant::ofEpoch($row['at']),
                    $row['changed'] ?? '',
                );
            }
        }

        return $found;
    }

    /** Within UTC. */
    public function firstDifference(Site $site): ?ChainBreak
    {
        foreach (self::TABLES as $table => $of) {
            /** @var array{row_id: string, is_there: bool, changed: string|null}|false $row */
            $row = $this->connection->fetchAssociative(
                <<<SQL
                WITH kept AS (
                    SELECT DISTINCT ON (row_id) row_id, content FROM row_kept
                    WHERE site_id = :site AND of_table = '$table' ORDER BY row_id, seq DESC
                ), compared AS (
                    SELECT k.row_id, r.id IS NOT NULL AS is_there, (
                        SELECT string_agg(e.key || ' was ' || e.value::text, ', ' ORDER BY e.key)
                        FROM jsonb_each(k.content) e WHERE r.id IS NOT NULL
                          AND to_jsonb(r)->e.key IS DISTINCT FROM e.value
                    ) AS changed
                    FROM kept k LEFT JOIN $table r ON r.id = k.row_id
                    UNION ALL
                    SELECT r.id, true, 'slipped in' FROM $table r
                    WHERE r.$of = :site AND NOT EXISTS (SELECT FROM kept k WHERE k.row_id = r.id)
                )
                SELECT row_id, is_there, changed FROM compared WHERE NOT is_there OR changed IS NOT NULL LIMIT 1
                SQL,
                ['site' => $site->id->toRfc4122()],
            );
            if ($row !== false) {
                return new ChainBreak(
                    $row['is_there'] ? 'changed' : 'removed',
                    0,
                    $table,
                    $row['row_id'],
                    $row['changed'] ?? '',
                );
            }
        }

        return null;
    }
}
