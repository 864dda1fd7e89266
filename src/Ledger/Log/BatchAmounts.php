<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Food\NoteStep;

/** The present amount of a batch, by its weights. */
final readonly class BatchAmounts
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * @return int|null grams: as last weighed, else as portioned, minus servings and discards since; null if it was
     *     never weighed
     */
    public function left(Batch $batch): ?int
    {
        $left = $this->connection->fetchOne(
            <<<'SQL'
            WITH mine AS (
                SELECT e.at, e.seq, e.members->>'step' AS step, (e.members->>'total_kg')::numeric AS total,
                  (e.members->>'weight_kg')::numeric AS weight
                FROM event e WHERE e.batch_id = :batch AND e.type = 'note'
                  AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            ), weighed AS (SELECT at, seq, total FROM mine WHERE step = :weighed ORDER BY at DESC, seq DESC LIMIT 1)
            SELECT round(1000 * (coalesce((SELECT total FROM weighed), :portion::numeric / 1000) - coalesce((
                SELECT sum(weight) FROM mine
                WHERE step IN (:served, :discarded) AND (at, seq) > (coalesce((SELECT at FROM weighed),
                  '-infinity'), coalesce((SELECT seq FROM weighed), 0))
            ), 0)))::int
            SQL,
            [
                'batch' => $batch->id->toRfc4122(),
                'weighed' => NoteStep::Weighed->value,
                'served' => NoteStep::ServedPart->value,
                'discarded' => NoteStep::DiscardedPart->value,
                'portion' => $batch->portionGrams,
            ],
        );

        return \is_int($left) ? max(0, $left) : null;
    }
}
