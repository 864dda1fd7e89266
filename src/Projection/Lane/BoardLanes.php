<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * The lanes of the board. A lane is made when an event changes it, and made anew when it is looked at after time alone
 * may have changed its verdict; in between it is only read.
 */
final readonly class BoardLanes
{
    private const COLUMNS = 'batch_id, tag, version, ended_at IS NOT NULL AS has_ended, verdict, facts';

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Assessor $assessor,
        private Products $products,
    ) {
    }

    /** @return list<Lane> of the open batches, by tag */
    public function open(Site $site, Instant $now): array
    {
        $this->bringUpToDate($site, $now);
        /** @var list<array{batch_id: string, tag: int, version: int, has_ended: bool, verdict: string, facts: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT '.self::COLUMNS.' FROM board_lane WHERE site_id = ? AND ended_at IS NULL ORDER BY tag',
            [$site->id->toRfc4122()],
        );

        return array_map(LaneFacts::unpack(...), $rows);
    }

    /** Grows with every change of any lane of the site. */
    public function version(Site $site, Instant $now): int
    {
        $this->bringUpToDate($site, $now);
        $version = $this->connection->fetchOne('SELECT max(version) FROM board_lane WHERE site_id = ?', [$site->id->toRfc4122()]);

        return \is_int($version) ? $version : 0;
    }

    /** The lane of one batch, open or ended. */
    public function of(Batch $batch, Instant $now): Lane
    {
        $this->bringUpToDate($batch->site, $now);
        /** @var array{batch_id: string, tag: int, version: int, has_ended: bool, verdict: string, facts: string}|false $row */
        $row = $this->connection->fetchAssociative('SELECT '.self::COLUMNS.' FROM board_lane WHERE batch_id = ?', [$batch->id->toRfc4122()]);
        \assert($row !== false, 'a batch and its lane begin in one transaction');

        return LaneFacts::unpack($row);
    }

    /** Makes those lanes anew whose verdict time alone may have changed. Whoever shows a verdict out of the lanes calls it first: "running" must not outlive its limit. */
    public function bringUpToDate(Site $site, Instant $now): void
    {
        /** @var list<string> $turned */
        $turned = $this->connection->fetchFirstColumn(
            'SELECT batch_id FROM board_lane WHERE site_id = ? AND ended_at IS NULL AND next_turn < ?',
            [$site->id->toRfc4122(), $now->rfc3339()],
        );
        foreach ($turned as $id) {
            $this->connection->transactional(fn () => $this->refreshById($id, $now));
        }
    }

    /** @return list<Lane> of the batches that ended from this moment on, the latest first */
    public function endedSince(Site $site, Instant $since): array
    {
        /** @var list<array{batch_id: string, tag: int, version: int, has_ended: bool, verdict: string, facts: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT '.self::COLUMNS.' FROM board_lane WHERE site_id = ? AND ended_at >= ? ORDER BY ended_at DESC, tag LIMIT 12',
            [$site->id->toRfc4122(), $since->rfc3339()],
        );

        return array_map(LaneFacts::unpack(...), $rows);
    }

    /** The open batch with this tag, if there is one. */
    public function batchByTag(Site $site, int $tag): ?Batch
    {
        $id = $this->connection->fetchOne('SELECT batch_id FROM board_lane WHERE site_id = ? AND tag = ? AND ended_at IS NULL', [$site->id->toRfc4122(), $tag]);

        return \is_string($id) ? $this->entities->find(Batch::class, Uuid::fromString($id)) : null;
    }

    /** @return list<int> */
    public function tagsInUse(Site $site): array
    {
        /** @var list<int> */
        return $this->connection->fetchFirstColumn('SELECT tag FROM board_lane WHERE site_id = ? AND ended_at IS NULL ORDER BY tag', [$site->id->toRfc4122()]);
    }

    public function refresh(Batch $batch, Instant $now): void
    {
        $record = $this->records->of($batch);
        $assessment = $this->assessor->assess($record, $this->ruleSets->get($record->rules), $now);
        $this->connection->executeStatement(<<<'SQL'
            INSERT INTO board_lane (batch_id, site_id, tag, ended_at, verdict, next_turn, facts, version)
            VALUES (:batch, :site, :tag, :ended, :verdict, :turn, :facts, nextval('board_version'))
            ON CONFLICT (batch_id) DO UPDATE
            SET ended_at = excluded.ended_at, verdict = excluded.verdict, next_turn = excluded.next_turn, facts = excluded.facts, version = excluded.version
            SQL, [
            'batch' => $batch->id->toRfc4122(),
            'site' => $batch->site->id->toRfc4122(),
            'tag' => $batch->tag,
            'ended' => $assessment->timeline->end?->rfc3339(),
            'verdict' => $assessment->verdict->value,
            'turn' => $assessment->nextTurn?->rfc3339(),
            'facts' => LaneFacts::pack($assessment, CookOutlook::of($assessment, $this->products->ofBatch($batch)?->doneness()?->from), FallOutlook::of($assessment, $batch->size())),
        ]);
    }

    /** What changes a batch changes the portions split off it, too. */
    public function refreshWithPortions(Batch $batch, Instant $now): void
    {
        $this->refresh($batch, $now);
        foreach ($this->entities->getRepository(Batch::class)->findBy(['parent' => $batch]) as $portion) {
            $this->refreshWithPortions($portion, $now);
        }
    }

    /** Makes every lane anew. @return int how many */
    public function rebuild(Instant $now): int
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT id FROM batch ORDER BY begun_at, id');
        foreach ($ids as $id) {
            $this->connection->transactional(fn () => $this->refreshById($id, $now));
            $this->entities->clear();
        }

        return \count($ids);
    }

    private function refreshById(string $id, Instant $now): void
    {
        $this->connection->executeStatement('SELECT 1 FROM batch WHERE id = ? FOR UPDATE', [$id]);
        $batch = $this->entities->find(Batch::class, Uuid::fromString($id));
        if ($batch !== null) {
            $this->refresh($batch, $now);
        }
    }
}
