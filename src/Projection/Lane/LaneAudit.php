<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;

/** Whether the board's row of a batch matches its record: judged again, and compared. */
final readonly class LaneAudit
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Assessments $assessments,
        private Now $now,
    ) {
    }

    /** @return string|null the code of the first batch whose verdict on the board is another than its record's */
    public function first(Site $site): ?string
    {
        // Rows marked for rebuilding prove nothing yet.
        /** @var list<array{batch_id: string, code: string, lane: string, report: ?string, is_abridged: bool}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT l.batch_id, b.code, l.verdict AS lane, r.verdict AS report,
                   EXISTS (SELECT 1 FROM abridged_record a WHERE a.batch_id = l.batch_id) AS is_abridged
            FROM board_lane l JOIN batch b ON b.id = l.batch_id JOIN projection_state s ON s.batch_id = l.batch_id
            LEFT JOIN batch_report r ON r.batch_id = l.batch_id
            WHERE l.site_id = ? AND s.made = s.head AND (s.next_turn IS NULL OR s.next_turn > ?)
            ORDER BY b.begun_at, b.id
            SQL,
            [$site->id->toRfc4122(), $this->now->instant()->rfc3339()],
        );
        foreach ($rows as $row) {
            $batch = $this->entities->find(Batch::class, Uuid::fromString($row['batch_id']));
            $whole = $batch === null ? null : $this->assessments->whole($batch);
            $verdict = $whole?->verdict->value;
            if ($batch !== null && $whole !== null && $row['is_abridged'] && !$this->isOf($batch, $whole)) {
                return $row['code'];
            }
            if ($verdict !== $row['lane'] || ($row['report'] !== null && $verdict !== $row['report'])) {
                return $row['code'];
            }
        }

        return null;
    }

    /** Whether the checkpoint of a long record matches it: pages are judged by that. */
    private function isOf(Batch $batch, Assessment $whole): bool
    {
        $judged = $this->assessments->of($batch);
        // Without values that grow by time alone: the two are judged one after the other.
        $figures = static fn (Assessment $one): array => [
            $one->rulesJudged,
            $one->dangerZone->estimate->seconds,
            $one->dangerZone->least->seconds,
        ];

        return $figures($judged) === $figures($whole);
    }
}
