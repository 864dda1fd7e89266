<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;

/**
 * What may be changed, and what the chain says it is: settings, people, thermometers, products, pits and their kin.
 * What was changed past the application is another than what was kept of it last.
 */
final readonly class KeptRows
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

    public function __construct(private Connection $connection)
    {
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
