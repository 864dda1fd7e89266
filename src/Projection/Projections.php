<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\AsAlias;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Event\TerminateEvent;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\App\Ledger\Log\LedgerListener;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/**
 * Keeps the read tables up to date. A change in the ledger is noted in its transaction (`head` grows). After the
 * commit, without a lock that entries wait for, the batch is judged once and all tables are written from the result
 * (`made` follows). A failure stays noted, is reported, and blocks no entry and no page.
 */
#[AsAlias(LedgerListener::class)]
final readonly class Projections implements LedgerListener
{
    /** At most this many are rebuilt by the process that changed them; the worker rebuilds the rest. */
    private const AT_ONCE = 12;
    /** Closed batches rebuilt within a request. */
    private const WHILE_ANSWERING = 2;
    /** Events from which on one that is over is left to the worker. */
    private const LONG = 20_000;
    /** Seconds that a forecast may be owed. */
    private const OWED_S = 30;

    /** @param iterable<Projection> $projections */
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private CheckpointedRecords $abridged,
        private Assessments $assessments,
        private Forecasts $forecasts,
        private RequestStack $requests,
        #[AutowireIterator(Projection::class)] private iterable $projections,
        private MessageBusInterface $bus,
        private LoggerInterface $logger,
        private Now $now,
        private RecordingClock $clock,
        #[Autowire('%app.forecast_after_us%')] private int $after,
    ) {
    }

    public function mark(string $siteId, array $batchIds): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            WITH RECURSIVE touched AS (
                SELECT b.id FROM batch b WHERE b.id IN (:ids)
                UNION SELECT p.id FROM batch p JOIN touched t ON p.parent_id = t.id
            )
            INSERT INTO projection_state (batch_id, site_id, head) SELECT id, :site, 1 FROM touched
            ON CONFLICT (batch_id) DO UPDATE SET head = projection_state.head + 1, problem = NULL
            SQL,
            ['ids' => $batchIds, 'site' => $siteId],
            ['ids' => ArrayParameterType::STRING],
        );
    }

    public function follow(string $siteId, array $batchIds): void
    {
        try {
            $isAnswering = $this->requests->getMainRequest() !== null;
            $catchUp = fn (): bool => $this->catchUp($siteId);
            $isMuch = \count($batchIds) > self::AT_ONCE;
            $mayWait = !$isAnswering || $this->forecasts->mayBeEarlier();
            if ($isMuch || !($mayWait ? $catchUp() : $this->forecasts->while(ForecastTiming::Never, $catchUp))) {
                $this->bus->dispatch(new CatchUp($siteId));
            }
        } catch (\Throwable $problem) {
            $this->logger->error('The read tables of site {site} were not brought up to date.', [
                'site' => $siteId,
                'exception' => $problem,
            ]);
        }
    }

    /** Forecasts postponed during entries. */
    #[AsEventListener(TerminateEvent::class)]
    public function makeUp(): void
    {
        if ($this->after < 0) {
            $this->forecasts->leaveToThePage();

            return;
        }
        if ($this->forecasts->owesAny()) {
            // The page that follows an entry is asked for at once: it goes first.
            usleep($this->after);
        }
        foreach ($this->forecasts->owed() as $batchId) {
            $this->make($batchId);
        }
    }

    /**
     * Rebuilds open batches that changed or whose verdict may have changed by time, and a few closed ones; `pending`
     * says whether more are left. Call this before showing a verdict, so that an expired limit never shows as running.
     */
    public function bringUpToDate(Site $site): void
    {
        $this->catchUp($site->id->toRfc4122());
    }

    /** How many batches of a site are shown as they were: a change of theirs is not worked in yet, or could not be. */
    public function pending(Site $site): int
    {
        $count = $this->connection->fetchOne(
            'SELECT count(*) FROM projection_state WHERE site_id = ? AND made < head',
            [$site->id->toRfc4122()],
        );

        return \is_int($count) ? $count : 0;
    }

    /**
     * @param int|null $most of the ended batches; null for all of them
     *
     * @return bool whether nothing is left to do
     */
    public function catchUp(string $siteId, ?int $most = self::AT_ONCE): bool
    {
        if ($this->clock->isRefused($siteId)) {
            return true; // Nothing is judged by a clock that cannot be right.
        }
        $isAnswering = $most !== null && $this->requests->getMainRequest() !== null;
        $most = $isAnswering ? min($most, self::WHILE_ANSWERING) : $most;
        /** @var list<array{batch_id: string, is_open: bool, is_long: bool}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT s.batch_id, true AS is_open, false AS is_long
            FROM projection_state s JOIN open_tag o ON o.batch_id = s.batch_id
            WHERE s.site_id = :site AND s.problem IS NULL AND (s.made < s.head OR s.next_turn < :now)
            UNION ALL
            (SELECT s.batch_id, false, :long < (
                 SELECT count(*) FROM (SELECT 1 FROM event e WHERE e.batch_id = s.batch_id LIMIT :long + 1) AS counted
             )
             FROM projection_state s
             WHERE s.site_id = :site AND s.made < s.head AND s.problem IS NULL
               AND NOT EXISTS (SELECT 1 FROM open_tag o WHERE o.batch_id = s.batch_id) LIMIT :most)
            SQL,
            [
                'site' => $siteId,
                'now' => $this->now->instant()->rfc3339(),
                'most' => ($most ?? \PHP_INT_MAX - 1) + 1,
                'long' => self::LONG,
            ],
        );
        $others = $made = 0;
        foreach ($rows as $row) {
            if ($row['is_open']) {
                $this->make($row['batch_id']);
                continue;
            }
            ++$others;
            if (($most === null || $made < $most) && !($isAnswering && $row['is_long'])) {
                ++$made;
                $this->makeAlone($row['batch_id']);
            }
        }

        return $others <= $made;
    }

    /** Skipped if another process is doing it: no one waits for a closed batch. */
    private function makeAlone(string $batchId): void
    {
        $key = "hashtextextended('made ' || ?, 0)";
        if ($this->connection->fetchOne("SELECT pg_try_advisory_lock($key)", [$batchId]) !== true) {
            return;
        }
        try {
            $this->make($batchId);
        } finally {
            $this->connection->fetchOne("SELECT pg_advisory_unlock($key)", [$batchId]);
        }
    }

    /** Rebuilds the tables of one batch; a failure is noted with it. */
    public function make(string $batchId): void
    {
        $head = $this->connection->fetchOne('SELECT head FROM projection_state WHERE batch_id = ?', [$batchId]);
        $batch = $this->entities->find(Batch::class, Uuid::fromString($batchId));
        if (!\is_int($head) || $batch === null) {
            return;
        }
        try {
            $known = $this->abridged->of($batch);
            $assessment = $this->assessments->ofKnown($batch, $known);
            // Before the transaction: others who write to the batch do not wait for it.
            $cook = $this->forecasts->cook($batch, $assessment);
            if ($cook?->lateness() !== null) {
                $this->forecasts->rescue($batch, $assessment, $cook);
            }
            $this->forecasts->fall($batch, $assessment);
            $this->forecasts->remedies($batch, $assessment);
            $turn = $assessment->timeline->hasEnded() ? null : $this->turn($assessment);
            $this->connection->transactional(function () use (
                $batch,
                $batchId,
                $head,
                $known,
                $assessment,
                $turn,
            ): void {
                // A slower process with an older record does not overwrite a newer result.
                $isNewest =
                    $this->connection->executeStatement(
                        'UPDATE projection_state SET made = ?, shape = ?, next_turn = ?, problem = NULL '
                        .'WHERE batch_id = ? AND made <= ?',
                        [$head, $this->shape(), $turn?->rfc3339(), $batchId, $head],
                    ) === 1;
                foreach ($isNewest ? $this->projections : [] as $projection) {
                    $projection->write($batch, $assessment);
                }
                if ($isNewest) {
                    $this->abridged->goOn($batch, $known);
                }
            });
        } catch (\Throwable $problem) {
            $this->logger->error('Batch {batch} could not be shown on the board.', [
                'batch' => $batchId,
                'exception' => $problem,
            ]);
            $this->connection->executeStatement(
                'UPDATE projection_state SET problem = ?, next_turn = NULL WHERE batch_id = ?',
                [mb_substr($problem->getMessage(), 0, 500), $batchId],
            );
        }
    }

    /**
     * The latest time of its next rebuild: when time alone may change a verdict, and soon while its forecast is
     * outstanding, even if the process making it has died.
     */
    private function turn(Assessment $assessment): ?Instant
    {
        $turn = $assessment->nextTurn;
        if (!$this->forecasts->mayBeEarlier()) {
            return $turn;
        }
        $soon = $this->now->instant()->plus(Span::ofSeconds(self::OWED_S));

        return $turn === null || $turn->isAfter($soon) ? $soon : $turn;
    }

    /**
     * Rebuilds everything.
     *
     * @param \Closure(int, int): void|null $made is told how many are done, of how many
     *
     * @return int how many batches
     */
    public function rebuild(bool $onlyOfOtherShape = false, ?\Closure $made = null): int
    {
        $this->connection->executeStatement(
            'INSERT INTO projection_state (batch_id, site_id, head) SELECT id, site_id, 1 FROM batch '
            .'ON CONFLICT (batch_id) DO NOTHING',
        );
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT s.batch_id FROM projection_state s JOIN batch b ON b.id = s.batch_id WHERE NOT ? '
            .'OR s.shape <> ? ORDER BY b.begun_at, b.id',
            [$onlyOfOtherShape ? 'true' : 'false', $this->shape()],
        );
        foreach ($ids as $index => $id) {
            $this->make($id);
            $this->entities->clear();
            if ($made !== null) {
                $made($index + 1, \count($ids));
            }
        }

        return \count($ids);
    }

    /** The shapes of all tables together: rows of another shape are rebuilt when they are met. */
    public function shape(): string
    {
        $shapes = [];
        foreach ($this->projections as $projection) {
            $shapes[] = $projection->shape();
        }
        sort($shapes);

        return implode(', ', $shapes);
    }
}
