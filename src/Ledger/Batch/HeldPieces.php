<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Doctrine\DBAL\Connection;

/** Which pieces a batch holds: those it began with, without those that went their own ways since. */
final readonly class HeldPieces
{
    /** Of a batch b: the event that split it off was not taken back. */
    private const STANDS = <<<'SQL'
    NOT EXISTS (SELECT 1 FROM event d JOIN event o ON o.replaces = d.id WHERE d.seq = b.shares_up_to)
    SQL;

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<int>|null null where it holds all it began with, from 1 on */
    public function of(Batch $batch): ?array
    {
        $began = $this->began($batch);
        $gone = $this->gone($batch, null);
        if ($gone === []) {
            return $began;
        }
        $held = array_values(array_diff($began ?? range(1, $batch->pieces), $gone));

        // Where all went their own ways it ended, and its record is that of all of them.
        return $held === [] ? $began : $held;
    }

    /** @return non-empty-list<int> */
    public function numbers(Batch $batch): array
    {
        $held = $this->of($batch) ?? [];

        return $held === [] ? range(1, $batch->pieces) : $held;
    }

    /**
     * The batch that a piece of this one went its own way as, of the latest generation; null where it holds it itself,
     * or never did.
     */
    public function wayOf(Batch $batch, int $piece): ?string
    {
        $stands = self::STANDS;
        $id = $this->connection->fetchOne(
            <<<SQL
            WITH RECURSIVE way AS (
                SELECT b.id, 1 AS generation FROM batch b WHERE b.parent_id = :of
                  AND b.piece_numbers @> to_jsonb(:piece::int) AND $stands
                UNION ALL
                SELECT b.id, w.generation + 1 FROM batch b JOIN way w ON b.parent_id = w.id
                WHERE b.piece_numbers @> to_jsonb(:piece::int) AND $stands
            )
            SELECT id FROM way ORDER BY generation DESC LIMIT 1
            SQL,
            ['of' => $batch->id->toRfc4122(), 'piece' => $piece],
        );

        return \is_string($id) ? $id : null;
    }

    /** Whether anything but that it was split off was said of a portion on its own, and stands. */
    public function hasHistory(Batch $portion): bool
    {
        return $this->connection->fetchOne(
            <<<'SQL'
            SELECT 1 FROM event e WHERE e.batch_id = ? AND e.type <> 'void' AND coalesce(e.members->>'step',
              '') <> 'portioned'
              AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id) LIMIT 1
            SQL,
            [$portion->id->toRfc4122()],
        ) !== false;
    }

    /** @return list<int>|null */
    private function began(Batch $batch): ?array
    {
        if ($batch->pieceNumbers !== null || $batch->parent === null) {
            return $batch->pieceNumbers;
        }
        $shared = $this->began($batch->parent);
        $gone = $this->gone($batch->parent, $batch);

        return $gone === [] ? $shared : array_values(array_diff($shared ?? range(1, $batch->pieces), $gone));
    }

    /**
     * @param Batch|null $before a portion of it, where those count that had gone when it was split off
     *
     * @return list<int>
     */
    private function gone(Batch $batch, ?Batch $before): array
    {
        $stands = self::STANDS;
        /** @var list<string> $lists */
        $lists = $this->connection->fetchFirstColumn(
            <<<SQL
            SELECT b.piece_numbers FROM batch b
            WHERE b.parent_id = :of AND b.piece_numbers IS NOT NULL AND $stands
              AND (:before::timestamptz IS NULL OR b.begun_at <= :before::timestamptz)
            SQL,
            ['of' => $batch->id->toRfc4122(), 'before' => $before?->begunAt->format(\DATE_RFC3339)],
        );
        $gone = [];
        foreach ($lists as $list) {
            /** @var list<int> $numbers */
            $numbers = json_decode($list, true, flags: \JSON_THROW_ON_ERROR);
            array_push($gone, ...$numbers);
        }

        return $gone;
    }
}
