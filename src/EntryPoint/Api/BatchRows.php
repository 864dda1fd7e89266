<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Api;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;

/**
 * The batches of a site as a list for programs.
 *
 * @phpstan-type Row array{id: string, code: string, tag: int, product: string, begun_at: string, ended_at: string|null,
 *     stage: string|null, place: string|null, verdict: string|null}
 */
final readonly class BatchRows
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return Page<Row> the last to begin first */
    public function latest(string $siteId, ?PageKey $after, bool $isOpenOnly): Page
    {
        $open = $isOpenOnly ? 'AND EXISTS (SELECT FROM open_tag o WHERE o.batch_id = b.id)' : '';
        /** @var list<Row> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT b.id, b.code, b.tag, b.product_name AS product,
                   to_char(b.begun_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS begun_at,
                   to_char(r.ended_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS ended_at,
                   r.stage, r.place, r.verdict
            FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id
            WHERE b.site_id = :site AND (b.begun_at, b.id) < (to_timestamp(:place), :id::uuid) $open
            ORDER BY b.begun_at DESC, b.id DESC LIMIT :most
            SQL,
            ($after ?? PageKey::first())->parameters() + ['site' => $siteId],
        );

        return Page::of(
            $rows,
            static fn (array $row): PageKey => new PageKey((int) strtotime($row['begun_at']), $row['id']),
        );
    }
}
