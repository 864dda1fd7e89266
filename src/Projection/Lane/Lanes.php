<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Doctrine\DBAL\Connection;
use Psr\Log\LoggerInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * The lanes of the board. They are brought up to date before they are read. A lane of an older shape is rebuilt when it
 * is met. An unreadable one is left out and named, so that it breaks no page.
 */
final readonly class Lanes
{
    private const COLUMNS = <<<'SQL'
    s.batch_id, b.tag, b.code, b.product_name, coalesce(l.version, 0) AS version, extract(epoch
      FROM l.ended_at)::bigint AS ended_at, l.verdict, l.facts, s.shape, s.problem,
    b.parent_id, b.piece_numbers IS NOT NULL AS has_own_way
    SQL;
    private const TABLES =
        'projection_state s JOIN batch b ON b.id = s.batch_id LEFT JOIN board_lane l ON l.batch_id = s.batch_id';

    public function __construct(
        private Connection $connection,
        private Projections $projections,
        private LoggerInterface $logger,
        private Now $now,
    ) {
    }

    /** The open batches, by tag. */
    public function open(Site $site): LaneList
    {
        $this->projections->bringUpToDate($site);

        return $this->read(
            's.batch_id IN (SELECT o.batch_id FROM open_tag o WHERE o.site_id = ?)',
            [$site->id->toRfc4122()],
            'b.tag, b.code',
        );
    }

    /** @return Page<Lane> the batches that ended but still ask for an action, the last to end first */
    public function unsettled(Site $site, ?PageKey $after = null): Page
    {
        $from = $after ?? PageKey::first();
        $list = $this->read(
            'l.site_id = ? AND l.has_open_action AND l.ended_at IS NOT NULL AND (l.ended_at, '
            .'l.batch_id) < (to_timestamp(?), ?::uuid)',
            [$site->id->toRfc4122(), (string) $from->place, $from->id],
            'l.ended_at DESC, l.batch_id DESC LIMIT '.$from->parameters()['most'],
        );

        return Page::of(
            $list->lanes,
            static fn (Lane $lane): PageKey => new PageKey($lane->endedAt->epoch ?? 0, $lane->batchId),
        );
    }

    public function countUnsettled(Site $site): int
    {
        $count = $this->connection->fetchOne(
            'SELECT count(*) FROM board_lane WHERE site_id = ? AND has_open_action AND ended_at IS NOT NULL',
            [$site->id->toRfc4122()],
        );

        return \is_int($count) ? $count : 0;
    }

    /** How many batches, open or ended, need a corrective action. */
    public function countOpenActions(Site $site): int
    {
        $count = $this->connection->fetchOne(
            'SELECT count(*) FROM board_lane WHERE site_id = ? AND has_open_action',
            [$site->id->toRfc4122()],
        );

        return \is_int($count) ? $count : 0;
    }

    /** The version of the site's lanes once they are brought up to date. */
    public function current(Site $site): int
    {
        $this->projections->bringUpToDate($site);

        return $this->version($site);
    }

    /**
     * The state of a site's boards, in one query if nothing is outdated: versions of its lanes and its chain. The chain
     * includes changes of alarms.
     *
     * @return array{int, int}
     */
    public function state(Site $site): array
    {
        /** @var array{version: int|null, length: int|null, is_behind: bool} $row */
        $row = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT (SELECT max(version) FROM board_lane WHERE site_id = :site) AS version,
                   (SELECT max(position) FROM chain_link WHERE site_id = :site) AS length,
                   EXISTS (SELECT 1 FROM projection_state s WHERE s.site_id = :site AND s.made < s.head)
                   OR EXISTS (SELECT 1 FROM open_tag o JOIN projection_state s ON s.batch_id = o.batch_id
                       WHERE o.site_id = :site AND s.next_turn < :now) AS is_behind
            SQL,
            ['site' => $site->id->toRfc4122(), 'now' => $this->now->instant()->rfc3339()],
        );

        return [$row['is_behind'] ? $this->current($site) : $row['version'] ?? 0, $row['length'] ?? 0];
    }

    /** Grows with every change of any lane of the site. */
    public function version(Site $site): int
    {
        $version = $this->connection->fetchOne('SELECT max(version) FROM board_lane WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);

        return \is_int($version) ? $version : 0;
    }

    /** The lane of one batch, open or ended; null while it cannot be made. */
    public function of(Batch $batch): ?Lane
    {
        $this->projections->bringUpToDate($batch->site);

        return $this->read('s.batch_id = ?', [$batch->id->toRfc4122()], 'b.tag')->lanes[0] ?? null;
    }

    /** The batches that ended from this moment on, the latest first. */
    public function endedSince(Site $site, Instant $since, int $most): LaneList
    {
        return $this->read(
            's.site_id = ? AND l.ended_at >= ? AND NOT l.has_open_action',
            [$site->id->toRfc4122(), $since->rfc3339()],
            'l.ended_at DESC, b.tag LIMIT '.$most,
        );
    }

    /** Announces a change outside a batch's record that affects its lane. */
    public function touch(Batch $batch): void
    {
        $this->connection->executeStatement(
            "UPDATE board_lane SET version = nextval('board_version') WHERE batch_id = ?",
            [$batch->id->toRfc4122()],
        );
    }

    /** @param list<string> $parameters */
    private function read(string $where, array $parameters, string $order): LaneList
    {
        $columns = self::COLUMNS;
        $sql = "SELECT $columns FROM ".self::TABLES." WHERE $where ORDER BY $order";
        $rows = $this->rows($sql, $parameters);
        $shape = $this->projections->shape();
        $isOlder = false;
        foreach ($rows as $row) {
            if ($row['shape'] !== $shape && $row['problem'] === null) {
                $this->projections->make($row['batch_id']);
                $isOlder = true;
            }
        }
        $lanes = $unreadable = [];
        foreach ($isOlder ? $this->rows($sql, $parameters) : $rows as $row) {
            $lane = $this->unpacked($row);
            if ($lane === null) {
                $unreadable[] = new UnreadableLane($row['batch_id'], $row['tag'], $row['product_name']);
            } else {
                $lanes[] = $lane;
            }
        }

        return new LaneList($lanes, $unreadable);
    }

    /**
     * @param list<string> $parameters
     *
     * @return list<array{batch_id: string, tag: int, code: string, product_name: string, version: int,
     *     ended_at: int|null, verdict: string|null, facts: string|null, shape: string, problem: string|null,
     *     parent_id: string|null, has_own_way: bool}>
     */
    private function rows(string $sql, array $parameters): array
    {
        /**
         * @var list<array{batch_id: string, tag: int, code: string, product_name: string, version: int,
         *     ended_at: int|null, verdict: string|null, facts: string|null, shape: string, problem: string|null,
         *     parent_id: string|null, has_own_way: bool}>
         */
        return $this->connection->fetchAllAssociative($sql, $parameters);
    }

    /**
     * @param array{batch_id: string, tag: int, code: string, product_name: string, version: int, ended_at: int|null,
     *     verdict: string|null, facts: string|null, shape: string, problem: string|null, parent_id: string|null,
     *     has_own_way: bool} $row
     */
    private function unpacked(array $row): ?Lane
    {
        if ($row['verdict'] === null || $row['facts'] === null) {
            return null;
        }
        try {
            return LaneFacts::unpack(['verdict' => $row['verdict'], 'facts' => $row['facts']] + $row);
        } catch (\Throwable $problem) {
            $this->logger->error('The lane of batch {batch} cannot be read.', [
                'batch' => $row['batch_id'],
                'exception' => $problem,
            ]);

            return null;
        }
    }
}
