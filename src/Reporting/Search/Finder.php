<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Search;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/**
 * Finds batches and lots by any remembered detail, and follows a lot, a thermometer or a recipe to every batch and
 * portion.
 */
final readonly class Finder
{
    private const COLUMNS = <<<'SQL'
    b.id, b.tag, b.code, b.product_name AS product, extract(epoch FROM b.begun_at)::bigint AS begun_at, r.verdict,
      p.code AS parent,
    coalesce(b.portion_grams, b.raw_grams * coalesce(jsonb_array_length(b.piece_numbers), b.pieces)) AS grams, r.place,
      r.stage, extract(epoch FROM r.ended_at)::bigint AS ended_at
    SQL;
    private const JOINED = 'LEFT JOIN batch_report r ON r.batch_id = b.id LEFT JOIN batch p ON p.id = b.parent_id';
    private const NEVER = '1970-01-01T00:00:00Z';

    public function __construct(private Connection $connection)
    {
    }

    /** @return Page<SearchHit> the latest first */
    public function batches(Site $site, string $words, ?PageKey $after): Page
    {
        $like = self::like($words);
        $day = LocalDate::ofIso($words);
        /** @var list<string> $people */
        $people = $this->connection->fetchFirstColumn(
            'SELECT id FROM account WHERE site_id = :site AND (name ILIKE :like OR upper(initials) = upper(:words))',
            ['site' => $site->id->toRfc4122(), 'like' => $like, 'words' => $words],
        );
        $byPeople =
            $people === []
                ? ''
                : 'OR EXISTS (SELECT 1 FROM event e WHERE e.batch_id = w.id AND e.account_id IN (:people))';
        $columns = self::COLUMNS;
        $joined = self::JOINED;
        $rows = $this->read(
            <<<SQL
            WITH lots AS MATERIALIZED (
                SELECT bl.batch_id FROM batch_lot bl JOIN lot ON lot.id = bl.lot_id
                  JOIN supplier s ON s.id = lot.supplier_id
                WHERE lot.site_id = :site AND (lot.number ILIKE :like OR s.name ILIKE :like)
            ), found AS MATERIALIZED (
                -- From the latest on until a page is full, so that what is often found is found soon.
                SELECT w.id FROM batch w WHERE w.site_id = :site AND (w.begun_at, w.id) < (to_timestamp(:place),
                  :id::uuid) AND (
                    w.code ILIKE :like OR w.product_name ILIKE :like OR w.tag::text = :words
                    OR w.begun_at >= :from AND w.begun_at < :to OR w.id IN (SELECT batch_id FROM lots) $byPeople
                ) ORDER BY w.begun_at DESC, w.id DESC LIMIT :most
            )
            SELECT $columns FROM found f JOIN batch b ON b.id = f.id $joined ORDER BY b.begun_at DESC, b.id DESC
            SQL,
            ($after ?? PageKey::first())->parameters() + [
                'site' => $site->id->toRfc4122(),
                'like' => $like,
                'words' => $words,
                'from' => $day?->startIn($site->zone())->rfc3339() ?? self::NEVER,
                'to' => $day?->plusDays(1)->startIn($site->zone())->rfc3339() ?? self::NEVER,
            ]
                + ($people === [] ? [] : ['people' => $people]),
        );

        return Page::of($rows, static fn (SearchHit $found): PageKey => $found->key());
    }

    /** @return Page<array{id: string, number: string, product: string, supplier: string, at: int}> the latest first */
    public function lots(Site $site, string $words, ?PageKey $after): Page
    {
        /** @var list<array{id: string, number: string, product: string, supplier: string, at: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT lot.id, lot.number, p.name AS product, s.name AS supplier, extract(epoch FROM lot.at)::bigint AS at
            FROM lot JOIN product p ON p.id = lot.product_id JOIN supplier s ON s.id = lot.supplier_id
            WHERE lot.site_id = :site AND (lot.number ILIKE :like OR s.name ILIKE :like OR p.name ILIKE :like)
              AND (lot.at, lot.id) < (to_timestamp(:place), :id::uuid)
            ORDER BY lot.at DESC, lot.id DESC LIMIT :most
            SQL,
            ($after ?? PageKey::first())->parameters() + [
                'site' => $site->id->toRfc4122(),
                'like' => self::like($words),
            ],
        );

        return Page::of($rows, static fn (array $row): PageKey => new PageKey($row['at'], $row['id']));
    }

    /**
     * Every batch made from a lot, read with a thermometer or seasoned by a recipe since then, all their portions, and
     * the batches they were mixed into.
     *
     * @param 'lot'|'thermometer'|'recipe' $kind
     *
     * @return list<SearchHit> by code, portions below their origin
     */
    public function recall(Site $site, string $kind, string $what, Instant $since): array
    {
        $from = match ($kind) {
            'lot' => 'SELECT batch_id FROM batch_lot WHERE lot_id = :what',
            // Batches in progress since then, then one lookup per batch: all readings of an old thermometer are never
            // scanned. OFFSET and LIMIT hold the planner to it.
            'thermometer' => <<<'SQL'
            SELECT x.batch_id FROM (SELECT DISTINCT batch_id FROM event WHERE at >= :since OFFSET 0) x
            CROSS JOIN LATERAL (
                SELECT 1 FROM event e WHERE e.batch_id = x.batch_id AND e.type = 'reading'
                  AND e.members->>'thermometer' = :what AND e.at >= :since LIMIT 1
            ) hit
            SQL,
            'recipe' => "SELECT e.batch_id FROM event e WHERE e.members->>'recipe' = :what AND e.at >= :since",
        };
        $select =
            ' SELECT '
            .self::COLUMNS
            .' FROM touched t JOIN batch b ON b.id = t.id '
            .self::JOINED
            .' ORDER BY b.code';
        $parameters = ['site' => $site->id->toRfc4122(), 'what' => $what];

        return $this->read(
            self::touched($from).$select,
            $parameters + ($kind === 'lot' ? [] : ['since' => $since->rfc3339()]),
        );
    }

    /** @return list<string> ids of every batch and portion that has to do with the lots of this number */
    public function ofLotNumber(Site $site, string $number): array
    {
        $from = 'SELECT bl.batch_id FROM batch_lot bl JOIN lot ON lot.id = bl.lot_id WHERE lot.number = :number';
        $parameters = ['site' => $site->id->toRfc4122(), 'number' => $number];

        /** @var list<string> */
        return $this->connection->fetchFirstColumn(self::touched($from).' SELECT id FROM touched', $parameters);
    }

    /** Batches of the site, their portions, and batches they were combined with, recursively. */
    private static function touched(string $from): string
    {
        return <<<SQL
        WITH RECURSIVE touched AS (
            SELECT b.id FROM batch b WHERE b.site_id = :site AND b.id IN ($from)
            UNION SELECT n.id FROM touched t CROSS JOIN LATERAL (
                SELECT c.id FROM batch c WHERE c.parent_id = t.id
                UNION ALL SELECT m.id FROM event e JOIN batch m ON m.site_id = :site
                  AND m.code = e.members->>'mixed_into'
                  WHERE e.batch_id = t.id AND e.type = 'close'
                    AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            ) n
        )
        SQL;
    }

    private static function like(string $words): string
    {
        return '%'.addcslashes($words, '%_\\').'%';
    }

    /**
     * @param array<string, string|int|list<string>> $parameters
     *
     * @return list<SearchHit>
     */
    private function read(string $sql, array $parameters): array
    {
        $types = isset($parameters['people']) ? ['people' => ArrayParameterType::STRING] : [];
        /**
         * @var list<array{id: string, tag: int, code: string, product: string, begun_at: int, verdict: string|null,
         *     parent: string|null, grams: int|null, place: string|null, stage: string|null, ended_at: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative($sql, $parameters, $types);

        return array_map(
            static fn (array $row): SearchHit => new SearchHit(
                $row['id'],
                $row['tag'],
                $row['code'],
                $row['product'],
                $row['begun_at'],
                $row['verdict'],
                $row['parent'],
                $row['grams'],
                $row['place'],
                $row['stage'],
                $row['ended_at'],
            ),
            $rows,
        );
    }
}
