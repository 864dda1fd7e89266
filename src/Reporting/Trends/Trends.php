<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Trends;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** Trends of the records of a time: places of deviations, punctuality of checks, length of rests and coolings. */
final readonly class Trends
{
    /** Batches of a site begun since, with every deviation of theirs. */
    private const DEVIATIONS =
        'batch b JOIN deviation d ON d.batch_id = b.id WHERE b.site_id = :site AND b.begun_at >= :since';
    /** The column each grouping counts deviations by. */
    private const GROUPS = [
        'by_rule' => 'd.rule',
        'by_product' => 'b.product_name',
        'by_hour' => "to_char(d.at AT TIME ZONE :zone, 'HH24')",
        'by_unit' => 'd.unit',
    ];
    /** Of how many batches that is, where the question makes sense. */
    private const TOTALS = [
        'by_product' => <<<'SQL'
        SELECT b.product_name AS name, count(*)::int AS count FROM batch b
        WHERE b.site_id = :site AND b.begun_at >= :since GROUP BY 1
        SQL,
        'by_unit' => <<<'SQL'
        SELECT s.place AS name, count(DISTINCT b.id)::int AS count FROM batch b JOIN stage_report s ON s.batch_id = b.id
        WHERE b.site_id = :site AND b.begun_at >= :since AND s.place IS NOT NULL GROUP BY 1
        SQL,
        'by_rule' => <<<'SQL'
        SELECT r.rule AS name, count(*)::int AS count FROM batch b JOIN rule_report r ON r.batch_id = b.id
        WHERE b.site_id = :site AND b.begun_at >= :since AND r.verdict IS NOT NULL GROUP BY 1
        SQL,
    ];
    private const BATCH =
        'b.id, b.tag, b.code, b.product_name AS product, r.verdict, extract(epoch FROM b.begun_at)::bigint AS begun_at';

    public function __construct(
        private Connection $connection,
        private Thermometers $thermometers,
        private AccuracyChecks $checks,
    ) {
    }

    /**
     * @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group
     *
     * @return list<array{name: string, wrong: int, all: int|null}> batches with a rule broken or not shown; hours by
     *     the clock, the rest with the worst first
     */
    public function grouped(Site $site, Instant $since, string $group): array
    {
        $by = self::GROUPS[$group];
        $order = $group === 'by_hour' ? '1' : '2 DESC, 1';
        $sql =
            "SELECT $by AS name, count(DISTINCT b.id)::int AS wrong FROM "
            .self::DEVIATIONS
            ." AND $by IS NOT NULL GROUP BY 1 ORDER BY $order";
        /** @var list<array{name: string, wrong: int}> $rows */
        $rows = $this->connection->fetchAllAssociative($sql, self::parameters($site, $since, $group));
        /** @var array<string, int> $totals */
        $totals = isset(self::TOTALS[$group])
            ? $this->connection->fetchAllKeyValue(self::TOTALS[$group], self::parameters($site, $since))
            : [];

        return array_map(static fn (array $row): array => $row + ['all' => $totals[$row['name']] ?? null], $rows);
    }

    /**
     * @return array{late: int, all: int} batches that were held hot, and those of them with a gap between readings over
     *     the house interval
     */
    public function punctuality(Site $site, Instant $since): array
    {
        /** @var array{late: int, all: int} */
        return $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT count(*) FILTER (WHERE EXISTS (
                SELECT 1 FROM rule_report r WHERE r.batch_id = b.id AND r.rule = 'house.hot_hold_check'
            ))::int AS late, count(*)::int AS all
            FROM batch b WHERE b.site_id = :site AND b.begun_at >= :since
              AND EXISTS (SELECT 1 FROM stage_report s WHERE s.batch_id = b.id AND s.stage = 'hot_hold')
            SQL,
            self::parameters($site, $since),
        );
    }

    /** @return list<array{stage: string, median: int, ninetieth: int, count: int}> seconds; of stages that are over */
    public function durations(Site $site, Instant $since): array
    {
        /** @var list<array{stage: string, median: int, ninetieth: int, count: int}> */
        return $this->connection->fetchAllAssociative(
            <<<'SQL'
            WITH stages AS (
                SELECT s.stage, extract(epoch FROM s.to_at - s.from_at)::bigint AS seconds
                FROM batch b JOIN stage_report s ON s.batch_id = b.id
                WHERE b.site_id = :site AND b.begun_at >= :since AND s.to_at IS NOT NULL
            )
            SELECT stage, percentile_disc(0.5) WITHIN GROUP (ORDER BY seconds)::int AS median,
                   percentile_disc(0.9) WITHIN GROUP (ORDER BY seconds)::int AS ninetieth, count(*)::int AS count
            FROM stages WHERE stage IN ('prep', 'cook', 'rest', 'hot_hold', 'cool', 'reheat') GROUP BY stage
              ORDER BY stage
            SQL,
            self::parameters($site, $since),
        );
    }

    /**
     * @return list<array{thermometer: Thermometer, checks: int, failed: int, worst: AccuracyCheck|null}> with the check
     *     that was farthest off
     */
    public function thermometers(Site $site, Instant $since): array
    {
        return array_map(function (Thermometer $thermometer) use ($since): array {
            $checks = $this->checks->of($thermometer, $since);
            $worst = null;
            foreach ($checks as $check) {
                $worst = $worst === null || abs($check->drift()) > abs($worst->drift()) ? $check : $worst;
            }
            $failed = array_filter($checks, static fn (AccuracyCheck $check): bool => !$check->hasPassed);

            return [
                'thermometer' => $thermometer,
                'checks' => \count($checks),
                'failed' => \count($failed),
                'worst' => $worst,
            ];
        }, $this->thermometers->of($site));
    }

    /**
     * @return list<array{product: string, share: int, count: int}> served weight in hundredths of the raw weight, of
     *     batches where both were weighed
     */
    public function yields(Site $site, Instant $since): array
    {
        /** @var list<array{product: string, share: int, count: int}> */
        return $this->connection->fetchAllAssociative(
            <<<'SQL'
            WITH served AS (
                SELECT coalesce(b.parent_id, b.id) AS id, sum((e.members->>'weight_kg')::numeric) AS kg
                FROM batch b JOIN event e ON e.batch_id = b.id AND e.members->>'weight_kg' IS NOT NULL
                  AND (e.type = 'serve' OR e.type = 'note' AND e.members->>'step' = 'served_part')
                WHERE b.site_id = :site AND b.begun_at >= :since AND e.at >= :since
                  AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
                GROUP BY 1
            )
            SELECT b.product_name AS product, round(100000 * sum(s.kg) / sum(b.raw_grams * b.pieces))::int AS share,
              count(*)::int AS count
            FROM served s JOIN batch b ON b.id = s.id
            WHERE b.begun_at >= :since AND b.raw_grams IS NOT NULL AND b.site_id = :site GROUP BY 1 ORDER BY 1
            SQL,
            self::parameters($site, $since),
        );
    }

    /**
     * The accuracy of forecasts: windows stated at nine in ten, and how many contained the outcome.
     *
     * @return list<array{what: string, product: string, stated: int, held: int, early: int, late: int, open: int,
     *     minutes: int|null}> early and late are what came before and after the window; open is what nobody can know;
     *     minutes the middle width
     */
    public function scores(Site $site, Instant $since): array
    {
        /**
         * @var list<array{what: string, product: string, stated: int, held: int, early: int, late: int, open: int,
         *     minutes: int|null}>
         */
        return $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT f.what, b.product_name AS product, count(f.came_at)::int AS stated,
              count(*) FILTER (WHERE f.came_at >= f.earliest AND f.came_at <= coalesce(f.latest, 'infinity'))::int
                AS held,
              count(*) FILTER (WHERE f.came_at < f.earliest)::int AS early,
              count(*) FILTER (WHERE f.came_at > f.latest)::int AS late,
              count(*) FILTER (WHERE f.is_over AND f.came_at IS NULL)::int AS open,
              round(percentile_cont(0.5) WITHIN GROUP (ORDER BY extract(epoch FROM f.latest - f.earliest) / 60))::int
                AS minutes
            FROM forecast_kept f JOIN batch b ON b.id = f.batch_id
            WHERE f.site_id = :site AND f.stated_at >= :since AND f.is_over
            GROUP BY 1, 2 ORDER BY 1, 2
            SQL,
            self::parameters($site, $since),
        );
    }

    /**
     * @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group
     *
     * @return Page<array<string, mixed>> the records behind a bar, the latest first
     */
    public function behind(Site $site, Instant $since, string $group, string $name, ?PageKey $after): Page
    {
        $deviates =
            'EXISTS (SELECT 1 FROM deviation d WHERE d.batch_id = b.id AND '.self::GROUPS[$group].' = :name)';

        return $this->latest($deviates, self::parameters($site, $since, $group) + ['name' => $name], $after);
    }

    /** @return Page<array<string, mixed>> the records behind the gaps in hot-hold rounds, the latest first */
    public function behindGaps(Site $site, Instant $since, ?PageKey $after): Page
    {
        $hasGap = "EXISTS (SELECT 1 FROM rule_report g WHERE g.batch_id = b.id AND g.rule = 'house.hot_hold_check')";

        return $this->latest($hasGap, self::parameters($site, $since), $after);
    }

    /** @return Page<array<string, mixed>> the records behind a stage's times, the longest first */
    public function longest(Site $site, Instant $since, string $stage, ?PageKey $after): Page
    {
        $batch = self::BATCH;
        /** @var list<array{id: string, seconds: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            WITH took AS (
                SELECT b.id, max(extract(epoch FROM s.to_at - s.from_at))::bigint AS seconds
                FROM batch b JOIN stage_report s ON s.batch_id = b.id
                WHERE b.site_id = :site AND b.begun_at >= :since AND s.stage = :stage AND s.to_at IS NOT NULL
                  GROUP BY b.id
            )
            SELECT $batch, t.seconds FROM took t JOIN batch b ON b.id = t.id
              LEFT JOIN batch_report r ON r.batch_id = b.id
            WHERE (t.seconds, b.id) < (:place, :id::uuid) ORDER BY t.seconds DESC, b.id DESC LIMIT :most
            SQL,
            self::parameters($site, $since) + ['stage' => $stage] + ($after ?? PageKey::first())->parameters(),
        );

        return Page::of($rows, static fn (array $row): PageKey => new PageKey($row['seconds'], $row['id']));
    }

    /**
     * @param array<string, string> $parameters
     *
     * @return Page<array<string, mixed>>
     */
    private function latest(string $which, array $parameters, ?PageKey $after): Page
    {
        $batch = self::BATCH;
        /** @var list<array{id: string, begun_at: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT $batch FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id
            WHERE b.site_id = :site AND b.begun_at >= :since AND (b.begun_at, b.id) < (to_timestamp(:place),
              :id::uuid) AND $which
            ORDER BY b.begun_at DESC, b.id DESC LIMIT :most
            SQL,
            $parameters + ($after ?? PageKey::first())->parameters(),
        );

        return Page::of($rows, static fn (array $row): PageKey => new PageKey($row['begun_at'], $row['id']));
    }

    /** @return array<string, string> */
    private static function parameters(Site $site, Instant $since, string $group = ''): array
    {
        $parameters = ['site' => $site->id->toRfc4122(), 'since' => $since->rfc3339()];

        return $parameters + ($group === 'by_hour' ? ['zone' => $site->timezone] : []);
    }
}
