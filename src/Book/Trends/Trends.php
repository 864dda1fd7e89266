<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Trends;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Check\Check;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** What the records of a time have in common: where things went wrong, how punctual the rounds were, how long rests and coolings took. */
final readonly class Trends
{
    private const MOST_BEHIND = 200;
    /** Batches of a site begun since, with their lane; and every deviation of theirs: [rule, epoch, unit]. */
    private const DEVIATIONS = "batch b JOIN board_lane l ON l.batch_id = b.id, jsonb_array_elements(l.facts->'deviations') d WHERE b.site_id = :site AND b.begun_at >= :since";
    /** What each grouping counts deviations by. */
    private const GROUPS = [
        'by_rule' => 'd->>0',
        'by_product' => 'b.product_name',
        'by_hour' => "to_char(to_timestamp((d->>1)::bigint) AT TIME ZONE :zone, 'HH24')",
        'by_unit' => 'd->>2',
    ];
    /** Of how many batches that is, where the question makes sense. */
    private const TOTALS = [
        'by_product' => 'SELECT b.product_name AS name, count(*)::int AS count FROM batch b WHERE b.site_id = :site AND b.begun_at >= :since GROUP BY 1',
        'by_unit' => "SELECT u.name, count(*)::int AS count FROM batch b JOIN board_lane l ON l.batch_id = b.id, jsonb_array_elements_text(l.facts->'units') u(name) WHERE b.site_id = :site AND b.begun_at >= :since GROUP BY 1",
        'by_rule' => "SELECT key AS name, count(*)::int AS count FROM batch b JOIN board_lane l ON l.batch_id = b.id, jsonb_each(l.facts->'judged') WHERE b.site_id = :site AND b.begun_at >= :since GROUP BY 1",
    ];

    public function __construct(private Connection $connection, private Thermometers $thermometers)
    {
    }

    /**
     * @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group
     *
     * @return list<array{name: string, wrong: int, all: int|null}> batches with a rule broken or not shown; hours by the clock, the rest with the worst first
     */
    public function grouped(Site $site, Instant $since, string $group): array
    {
        $by = self::GROUPS[$group];
        $order = $group === 'by_hour' ? '1' : '2 DESC, 1';
        /** @var list<array{name: string, wrong: int}> $rows */
        $rows = $this->connection->fetchAllAssociative("SELECT $by AS name, count(DISTINCT b.id)::int AS wrong FROM ".self::DEVIATIONS." AND $by IS NOT NULL GROUP BY 1 ORDER BY $order", self::parameters($site, $since, $group));
        /** @var array<string, int> $totals */
        $totals = isset(self::TOTALS[$group]) ? $this->connection->fetchAllKeyValue(self::TOTALS[$group], self::parameters($site, $since)) : [];

        return array_map(static fn (array $row): array => $row + ['all' => $totals[$row['name']] ?? null], $rows);
    }

    /** @return array{late: int, all: int} batches that were held hot, and those of them with a gap between readings over the house interval */
    public function punctuality(Site $site, Instant $since): array
    {
        /** @var array{late: int, all: int} */
        return $this->connection->fetchAssociative(<<<'SQL'
            SELECT count(*) FILTER (WHERE jsonb_exists(l.facts->'house', 'house.hot_hold_check'))::int AS late, count(*)::int AS all
            FROM batch b JOIN board_lane l ON l.batch_id = b.id
            WHERE b.site_id = :site AND b.begun_at >= :since AND l.facts->'stages' @> '[["hot_hold"]]'
            SQL, self::parameters($site, $since));
    }

    /** @return list<array{stage: string, median: int, ninetieth: int, count: int}> seconds; of stages that are over */
    public function durations(Site $site, Instant $since): array
    {
        /** @var list<array{stage: string, median: int, ninetieth: int, count: int}> */
        return $this->connection->fetchAllAssociative(<<<'SQL'
            WITH stages AS (
                SELECT s.value->>0 AS stage, (s.value->>2)::bigint - (s.value->>1)::bigint AS seconds
                FROM batch b JOIN board_lane l ON l.batch_id = b.id, jsonb_array_elements(l.facts->'stages') s
                WHERE b.site_id = :site AND b.begun_at >= :since AND s.value->>2 IS NOT NULL
            )
            SELECT stage, percentile_disc(0.5) WITHIN GROUP (ORDER BY seconds)::int AS median, percentile_disc(0.9) WITHIN GROUP (ORDER BY seconds)::int AS ninetieth, count(*)::int AS count
            FROM stages WHERE stage IN ('prep', 'cook', 'rest', 'hot_hold', 'cool', 'reheat') GROUP BY stage ORDER BY stage
            SQL, self::parameters($site, $since));
    }

    /** @return list<array{thermometer: Thermometer, checks: int, failed: int, worst: Check|null}> with the check that was farthest off */
    public function thermometers(Site $site, Instant $since): array
    {
        return array_map(function (Thermometer $thermometer) use ($since): array {
            $checks = $this->thermometers->checksOf($thermometer, $since);
            $worst = null;
            foreach ($checks as $check) {
                $worst = $worst === null || abs($check->drift()) > abs($worst->drift()) ? $check : $worst;
            }

            return ['thermometer' => $thermometer, 'checks' => \count($checks), 'failed' => \count(array_filter($checks, static fn (Check $check): bool => !$check->hasPassed)), 'worst' => $worst];
        }, $this->thermometers->of($site));
    }

    /** @return list<array{product: string, share: int, count: int}> served weight in hundredths of the raw weight, of batches where both were weighed */
    public function yields(Site $site, Instant $since): array
    {
        /** @var list<array{product: string, share: int, count: int}> */
        return $this->connection->fetchAllAssociative(<<<'SQL'
            WITH served AS (
                SELECT coalesce(b.parent_id, b.id) AS id, sum((e.members->>'weight_kg')::numeric) AS kg
                FROM batch b JOIN event e ON e.batch_id = b.id AND e.type = 'serve' AND e.members->>'weight_kg' IS NOT NULL
                WHERE b.site_id = :site AND b.begun_at >= :since AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id) GROUP BY 1
            )
            SELECT b.product_name AS product, round(100000 * sum(s.kg) / sum(b.raw_grams * b.pieces))::int AS share, count(*)::int AS count
            FROM served s JOIN batch b ON b.id = s.id WHERE b.begun_at >= :since AND b.raw_grams IS NOT NULL AND b.site_id = :site GROUP BY 1 ORDER BY 1
            SQL, self::parameters($site, $since));
    }

    /**
     * @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group
     *
     * @return list<array{id: string, tag: int, code: string, product: string, verdict: string}> the records behind a bar, the latest first
     */
    public function behind(Site $site, Instant $since, string $group, string $name): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, verdict: string}> */
        return $this->connection->fetchAllAssociative('SELECT DISTINCT b.begun_at, b.id, b.tag, b.code, b.product_name AS product, l.verdict FROM '.self::DEVIATIONS.' AND '.self::GROUPS[$group].' = :name ORDER BY b.begun_at DESC, b.id LIMIT '.self::MOST_BEHIND, self::parameters($site, $since, $group) + ['name' => $name]);
    }

    /** @return list<array{id: string, tag: int, code: string, product: string, verdict: string}> the records behind the gaps in hot-hold rounds */
    public function behindGaps(Site $site, Instant $since): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, verdict: string}> */
        return $this->connection->fetchAllAssociative("SELECT b.id, b.tag, b.code, b.product_name AS product, l.verdict FROM batch b JOIN board_lane l ON l.batch_id = b.id WHERE b.site_id = :site AND b.begun_at >= :since AND jsonb_exists(l.facts->'house', 'house.hot_hold_check') ORDER BY b.begun_at DESC LIMIT ".self::MOST_BEHIND, self::parameters($site, $since));
    }

    /** @return list<array{id: string, tag: int, code: string, product: string, verdict: string, seconds: int}> the records behind a stage's times, the longest first */
    public function longest(Site $site, Instant $since, string $stage): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, verdict: string, seconds: int}> */
        return $this->connection->fetchAllAssociative(<<<'SQL'
            SELECT b.id, b.tag, b.code, b.product_name AS product, l.verdict, max((s->>2)::bigint - (s->>1)::bigint)::int AS seconds
            FROM batch b JOIN board_lane l ON l.batch_id = b.id, jsonb_array_elements(l.facts->'stages') s
            WHERE b.site_id = :site AND b.begun_at >= :since AND s->>0 = :stage AND s->>2 IS NOT NULL
            GROUP BY b.id, l.verdict ORDER BY seconds DESC, b.begun_at LIMIT 50
            SQL, self::parameters($site, $since) + ['stage' => $stage]);
    }

    /** @return array<string, string> */
    private static function parameters(Site $site, Instant $since, string $group = ''): array
    {
        return ['site' => $site->id->toRfc4122(), 'since' => $since->rfc3339()] + ($group === 'by_hour' ? ['zone' => $site->timezone] : []);
    }
}
