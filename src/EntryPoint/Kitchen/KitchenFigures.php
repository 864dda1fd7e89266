<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Kitchen;

use Doctrine\DBAL\Connection;
use Symfony\Component\Translation\TranslatableMessage;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/** The figures of the kitchen page, and the links that need attention. */
final readonly class KitchenFigures
{
    /** So long ago a day still waits for its signature here; older ones stand on their sheets. */
    private const DAYS = 7;

    public function __construct(
        private Connection $connection,
        private Thermometers $thermometers,
        private AccuracyChecks $checks,
        private MachineStates $machine,
        private Now $now,
    ) {
    }

    /** @return array<string, KitchenFigure> by the name of the route */
    public function of(Site $site): array
    {
        $counts = $this->counts($site);
        $figures = [];
        foreach (['unsettled', 'today', 'receiving', 'packets'] as $route) {
            if ($counts[$route] > 0) {
                $figures[$route] = new KitchenFigure(
                    new TranslatableMessage('kitchen.figure.'.$route, ['{count}' => $counts[$route]]),
                    $route !== 'packets',
                );
            }
        }
        if (!isset($figures['receiving']) && $counts['lots'] > 0) {
            $figures['receiving'] = new KitchenFigure(
                new TranslatableMessage('kitchen.figure.lots', ['{count}' => $counts['lots']]),
                false,
            );
        }
        foreach (['plans', 'pits', 'hot_round', 'products', 'recipes'] as $route) {
            if ($counts[$route] > 0) {
                $figures[$route] = new KitchenFigure(
                    new TranslatableMessage('kitchen.figure.'.$route, ['{count}' => $counts[$route]]),
                    false,
                );
            }
        }
        foreach ($this->machine->all() as $what => $state) {
            if ($state->needsSomebody()) {
                $figures['keeping'] = new KitchenFigure(new TranslatableMessage('kitchen.figure.'.$what), true);
            }
        }
        $failed = $this->failedThermometers($site);
        if ($failed !== []) {
            $figures['thermometers'] = new KitchenFigure(
                new TranslatableMessage('kitchen.figure.thermometers', ['{list}' => implode(', ', $failed)]),
                true,
            );
        }

        return $figures;
    }

    /** @return array<string, int> */
    private function counts(Site $site): array
    {
        $now = $this->now->instant();
        $today = LocalDate::ofInstant($now, $site->zone());

        /** @var array<string, int> */
        return (array) $this->connection->fetchAssociative(
            <<<'SQL'
            WITH on_hand AS (
                SELECT lot.use_by FROM lot
                LEFT JOIN (SELECT lot_id, sum(pieces) AS pieces FROM batch_lot GROUP BY lot_id) taken
                  ON taken.lot_id = lot.id
                LEFT JOIN (SELECT subject_id, sum((members->>'pieces')::int) AS pieces FROM site_event
                  WHERE site_id = :site AND subject = 'lot' AND type = 'discard' GROUP BY subject_id) gone
                  ON gone.subject_id = lot.id
                WHERE lot.site_id = :site AND lot.is_accepted
                  AND lot.pieces > coalesce(taken.pieces, 0) + coalesce(gone.pieces, 0)
            ), day AS (
                SELECT (:today::date - d) AS on_day FROM generate_series(1, :days) d
            )
            SELECT
                (SELECT count(*) FROM board_lane WHERE site_id = :site AND has_open_action)
                  ::int AS unsettled,
                (SELECT count(*) FROM day WHERE NOT EXISTS (
                    SELECT 1 FROM day_sign s WHERE s.site_id = :site AND s.day = day.on_day
                 ) AND EXISTS (
                    SELECT 1 FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id WHERE b.site_id = :site
                      AND b.begun_at < ((day.on_day + 1)::timestamp AT TIME ZONE :zone)
                      AND (r.ended_at IS NULL OR r.ended_at >= (day.on_day::timestamp AT TIME ZONE :zone))
                 ))::int AS today,
                (SELECT count(*) FROM on_hand WHERE use_by < :today::date)::int AS receiving,
                (SELECT count(*) FROM on_hand)::int AS lots,
                (SELECT count(*) FROM packet WHERE site_id = :site AND finished_at IS NULL AND problem IS NULL)
                  ::int AS packets,
                (SELECT count(DISTINCT l.facts->>'pit') FROM board_lane l JOIN open_tag o ON o.batch_id = l.batch_id
                 WHERE l.site_id = :site)::int AS pits,
                (SELECT count(*) FROM board_lane l JOIN open_tag o ON o.batch_id = l.batch_id
                 WHERE l.site_id = :site AND l.facts->'stages'->-1->>0 = 'hot_hold')::int AS hot_round,
                (SELECT count(*) FROM plan WHERE site_id = :site AND NOT is_retired AND begins_at >= :now)::int
                  AS plans,
                (SELECT count(*) FROM product WHERE site_id = :site AND NOT is_retired)::int AS products,
                (SELECT count(*) FROM recipe WHERE site_id = :site AND NOT is_retired)::int AS recipes
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'today' => $today->iso(),
                'now' => $now->rfc3339(),
                'days' => self::DAYS,
                'zone' => $site->timezone,
            ],
        );
    }

    /** @return list<string> the labels of those that failed their last check */
    private function failedThermometers(Site $site): array
    {
        $since = $this->now->instant()->plus(Span::ofHours(-24 * 60));
        $failed = [];
        foreach ($this->thermometers->of($site) as $thermometer) {
            $checks = $this->checks->of($thermometer, $since);
            $last = $checks[\count($checks) - 1] ?? null;
            if ($last !== null && !$last->hasPassed && $thermometer->retiredAt === null) {
                $failed[] = $thermometer->label;
            }
        }

        return $failed;
    }
}
