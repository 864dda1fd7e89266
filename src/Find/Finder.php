<?php

declare(strict_types=1);

namespace Verjuicer\App\Find;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site;
use Verjuicer\Core\Measure\LocalDate;

/** Finds batches and lots by what people remember of them, and follows a lot, a thermometer or a recipe to every batch and portion. */
final readonly class Finder
{
    private const MOST = 60;
    private const COLUMNS = <<<'SQL'
        b.id, b.tag, b.code, b.product_name AS product, l.verdict, p.code AS parent, coalesce(b.portion_grams, b.raw_grams * b.pieces) AS grams,
        (SELECT coalesce(e.members->>'place', e.members->>'method', e.type) FROM event e WHERE e.batch_id = b.id AND e.type IN ('cold_hold', 'freeze', 'hot_hold', 'cool', 'rest', 'cook', 'prep', 'reheat', 'time_control', 'thaw') ORDER BY e.at DESC, e.seq DESC LIMIT 1) AS "where",
        extract(epoch FROM l.ended_at)::bigint AS ended_at,
        (SELECT e.type FROM event e WHERE e.batch_id = b.id AND e.type IN ('serve', 'discard', 'close') ORDER BY e.at, e.seq LIMIT 1) AS "end"
        SQL;

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<Found> the latest first */
    public function batches(Site $site, string $words): array
    {
        $like = '%'.addcslashes($words, '%_\\').'%';
        $day = LocalDate::ofIso($words);
        $columns = self::COLUMNS;

        return $this->read(<<<SQL
            SELECT $columns FROM batch b JOIN board_lane l ON l.batch_id = b.id LEFT JOIN batch p ON p.id = b.parent_id
            WHERE b.site_id = :site AND b.id IN (
                SELECT id FROM batch WHERE site_id = :site AND (code ILIKE :like OR product_name ILIKE :like OR tag::text = :words OR begun_at >= :from AND begun_at < :to)
                UNION SELECT bl.batch_id FROM batch_lot bl JOIN lot ON lot.id = bl.lot_id JOIN supplier s ON s.id = lot.supplier_id WHERE lot.site_id = :site AND (lot.number ILIKE :like OR s.name ILIKE :like)
                UNION SELECT b2.id FROM batch b2 JOIN account a ON a.id = b2.begun_by_id WHERE b2.site_id = :site AND (a.name ILIKE :like OR a.initials = :words)
            ) ORDER BY b.begun_at DESC, b.code LIMIT :most
            SQL, [
            'site' => $site->id->toRfc4122(), 'like' => $like, 'words' => $words, 'most' => self::MOST,
            'from' => $day?->startIn($site->zone())->rfc3339() ?? '1970-01-01T00:00:00Z', 'to' => $day?->plusDays(1)->startIn($site->zone())->rfc3339() ?? '1970-01-01T00:00:00Z',
        ]);
    }

    /** @return list<array{id: string, number: string, product: string, supplier: string}> */
    public function lots(Site $site, string $words): array
    {
        /** @var list<array{id: string, number: string, product: string, supplier: string}> */
        return $this->connection->fetchAllAssociative(<<<'SQL'
            SELECT lot.id, lot.number, p.name AS product, s.name AS supplier FROM lot JOIN product p ON p.id = lot.product_id JOIN supplier s ON s.id = lot.supplier_id
            WHERE lot.site_id = ? AND (lot.number ILIKE ? OR s.name ILIKE ? OR p.name ILIKE ?) ORDER BY lot.at DESC LIMIT ?
            SQL, [$site->id->toRfc4122(), ...array_fill(0, 3, '%'.addcslashes($words, '%_\\').'%'), self::MOST]);
    }

    /**
     * Every batch that took from a lot, was read with a thermometer or had a recipe on it, and every portion of those.
     *
     * @param 'lot'|'thermometer'|'recipe' $kind
     *
     * @return list<Found> by code, portions below what they were split off
     */
    public function recall(Site $site, string $kind, string $what): array
    {
        $from = match ($kind) {
            'lot' => 'SELECT batch_id FROM batch_lot WHERE lot_id = :what',
            'thermometer' => "SELECT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.site_id = :site AND e.type = 'reading' AND e.members->>'thermometer' = :what",
            'recipe' => "SELECT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.site_id = :site AND e.members->>'recipe' = :what",
        };
        $columns = self::COLUMNS;

        return $this->read(<<<SQL
            WITH RECURSIVE touched AS (SELECT b.id FROM batch b WHERE b.site_id = :site AND b.id IN ($from) UNION SELECT c.id FROM batch c JOIN touched t ON c.parent_id = t.id)
            SELECT $columns FROM touched t JOIN batch b ON b.id = t.id JOIN board_lane l ON l.batch_id = b.id LEFT JOIN batch p ON p.id = b.parent_id ORDER BY b.code
            SQL, ['site' => $site->id->toRfc4122(), 'what' => $what]);
    }

    /**
     * @param array<string, string|int> $parameters
     *
     * @return list<Found>
     */
    private function read(string $sql, array $parameters): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, verdict: string, parent: string|null, grams: int|null, where: string|null, ended_at: int|null, end: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative($sql, $parameters);

        return array_map(static fn (array $row): Found => new Found($row['id'], $row['tag'], $row['code'], $row['product'], $row['verdict'], $row['parent'], $row['grams'], $row['where'], $row['ended_at'], $row['end']), $rows);
    }
}
