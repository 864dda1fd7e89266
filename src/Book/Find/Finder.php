<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Find;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** Finds batches and lots by what people remember of them, and follows a lot, a thermometer or a recipe to every batch and portion. */
final readonly class Finder
{
    public const MOST = 60;
    private const COLUMNS = "b.id, b.tag, b.code, b.product_name AS product, l.verdict, p.code AS parent, coalesce(b.portion_grams, b.raw_grams * b.pieces) AS grams, l.facts->>'where' AS place, l.facts->'stages'->-1->>0 AS stage, extract(epoch FROM l.ended_at)::bigint AS ended_at";

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<Found> the latest first */
    public function batches(Site $site, string $words): array
    {
        $like = '%'.addcslashes($words, '%_\\').'%';
        $day = LocalDate::ofIso($words);
        $columns = self::COLUMNS;
        /** @var list<string> $people */
        $people = $this->connection->fetchFirstColumn('SELECT id FROM account WHERE site_id = :site AND (name ILIKE :like OR upper(initials) = upper(:words))', ['site' => $site->id->toRfc4122(), 'like' => $like, 'words' => $words]);
        $byPeople = $people === [] ? '' : 'UNION (SELECT w.id FROM batch w WHERE w.site_id = :site AND EXISTS (SELECT 1 FROM event e WHERE e.batch_id = w.id AND e.account_id IN (:people)) ORDER BY w.begun_at DESC LIMIT :most)';

        return $this->read(<<<SQL
            SELECT $columns FROM batch b JOIN board_lane l ON l.batch_id = b.id LEFT JOIN batch p ON p.id = b.parent_id
            WHERE b.site_id = :site AND b.id IN (
                SELECT id FROM batch WHERE site_id = :site AND (code ILIKE :like OR product_name ILIKE :like OR tag::text = :words OR begun_at >= :from AND begun_at < :to)
                UNION SELECT bl.batch_id FROM batch_lot bl JOIN lot ON lot.id = bl.lot_id JOIN supplier s ON s.id = lot.supplier_id WHERE lot.site_id = :site AND (lot.number ILIKE :like OR s.name ILIKE :like)
                $byPeople
            ) ORDER BY b.begun_at DESC, b.code LIMIT :most
            SQL, [
            'site' => $site->id->toRfc4122(), 'like' => $like, 'words' => $words, 'most' => self::MOST,
            'from' => $day?->startIn($site->zone())->rfc3339() ?? '1970-01-01T00:00:00Z', 'to' => $day?->plusDays(1)->startIn($site->zone())->rfc3339() ?? '1970-01-01T00:00:00Z',
        ] + ($people === [] ? [] : ['people' => $people]));
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
     * Every batch that took from a lot, was read with a thermometer or had a recipe on it since, every portion of those, and what they were mixed into.
     *
     * @param 'lot'|'thermometer'|'recipe' $kind
     *
     * @return list<Found> by code, portions below what they were split off
     */
    public function recall(Site $site, string $kind, string $what, Instant $since): array
    {
        $from = match ($kind) {
            'lot' => 'SELECT batch_id FROM batch_lot WHERE lot_id = :what',
            // What was going on since, then one probe a batch: a thermometer that was in everything of years is never read through. OFFSET and LIMIT hold the planner to it.
            'thermometer' => <<<'SQL'
                SELECT x.batch_id FROM (SELECT DISTINCT batch_id FROM event WHERE at >= :since OFFSET 0) x
                CROSS JOIN LATERAL (SELECT 1 FROM event e WHERE e.batch_id = x.batch_id AND e.type = 'reading' AND e.members->>'thermometer' = :what AND e.at >= :since LIMIT 1) hit
                SQL,
            'recipe' => "SELECT e.batch_id FROM event e WHERE e.members->>'recipe' = :what AND e.at >= :since",
        };

        return $this->read(self::touched($from).' SELECT '.self::COLUMNS.' FROM touched t JOIN batch b ON b.id = t.id JOIN board_lane l ON l.batch_id = b.id LEFT JOIN batch p ON p.id = b.parent_id ORDER BY b.code', ['site' => $site->id->toRfc4122(), 'what' => $what] + ($kind === 'lot' ? [] : ['since' => $since->rfc3339()]));
    }

    /** @return list<string> ids of every batch and portion that has to do with the lots of this number */
    public function ofLotNumber(Site $site, string $number): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(self::touched('SELECT bl.batch_id FROM batch_lot bl JOIN lot ON lot.id = bl.lot_id WHERE lot.number = :number').' SELECT id FROM touched', ['site' => $site->id->toRfc4122(), 'number' => $number]);
    }

    /** Batches of the site, what was split off them, and what they were put together with, as far as it goes. */
    private static function touched(string $from): string
    {
        return <<<SQL
            WITH RECURSIVE touched AS (
                SELECT b.id FROM batch b WHERE b.site_id = :site AND b.id IN ($from)
                UNION SELECT n.id FROM touched t CROSS JOIN LATERAL (
                    SELECT c.id FROM batch c WHERE c.parent_id = t.id
                    UNION ALL SELECT m.id FROM event e JOIN batch m ON m.site_id = :site AND m.code = e.members->>'mixed_into' WHERE e.batch_id = t.id AND e.type = 'close' AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
                ) n
            )
            SQL;
    }

    /**
     * @param array<string, string|int|list<string>> $parameters
     *
     * @return list<Found>
     */
    private function read(string $sql, array $parameters): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, verdict: string, parent: string|null, grams: int|null, place: string|null, stage: string|null, ended_at: int|null}> $rows */
        $rows = $this->connection->fetchAllAssociative($sql, $parameters, isset($parameters['people']) ? ['people' => ArrayParameterType::STRING] : []);

        return array_map(static fn (array $row): Found => new Found($row['id'], $row['tag'], $row['code'], $row['product'], $row['verdict'], $row['parent'], $row['grams'], $row['place'], $row['stage'], $row['ended_at']), $rows);
    }
}
