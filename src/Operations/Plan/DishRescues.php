<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Forecast\CookRescue;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\Planner;
use Verjuicer\Core\Ruleset\DateMarkRules;

/** Ways out for a planned batch that is on the heat and runs late. */
final readonly class DishRescues
{
    private const QUARTER = 900; // seconds
    private const MOST_LATER = 4 * 3600;
    /** Stages of food that could be served in its place. */
    private const HELD = ['hot_hold', self::COLD, 'rest'];
    private const COLD = 'cold_hold';
    /** Seconds that food is held hot or rests for a meal, at the most. */
    private const MOST_HELD_HOT = 12 * 3600;

    public function __construct(
        private Assessments $assessments,
        private Forecasts $forecasts,
        private Lanes $lanes,
        private SiteRules $rules,
        private Now $now,
    ) {
    }

    /** @return array{rescue: CookRescue|null, later: Instant|null, held: list<Lane>} */
    public function of(DishSheet $sheet): array
    {
        $batch = $sheet->dish->batch;

        return [
            'rescue' => $batch === null || $sheet->schedule->dish->progress?->pulled !== null
                ? null
                : $this->rescue($batch),
            'later' => self::later($sheet),
            'held' => array_values(
                array_filter(
                    $this->lanes->open($sheet->dish->site)->lanes,
                    fn (Lane $one): bool => $one->product === $sheet->dish->product->name
                        && $one->batchId !== $batch?->id->toRfc4122()
                        && \in_array($one->stage(), self::HELD, true)
                        && $this->isFitFor($one, $sheet),
                ),
            ),
        ];
    }

    /** Food that may stand in for a dish: without a finding, and in date at the meal. */
    private function isFitFor(Lane $lane, DishSheet $sheet): bool
    {
        $serve = $sheet->schedule->dish->serve;
        if ($lane->wrongs !== [] || $lane->verdict === Verdict::Broken || $lane->verdict === Verdict::NotShown) {
            return false;
        }
        if ($lane->stage() !== self::COLD) {
            return $serve->epoch - $this->now->instant()->epoch <= self::MOST_HELD_HOT;
        }
        foreach ($lane->dues as $due) {
            if ($due->rule === 'date_mark') {
                return !$serve->isAfter($due->deadline);
            }
        }
        // Not marked yet: it will be, from the day it came off the heat.
        $days = $this->rules->of($sheet->dish->site)->get(DateMarkRules::class)->days;
        foreach (array_reverse($lane->stages) as $stage) {
            if ($stage->name === 'cook' && $stage->to !== null) {
                return $serve->epoch - $stage->to->epoch < ($days - 1) * 86400;
            }
        }

        return false;
    }

    private function rescue(Batch $batch): ?CookRescue
    {
        $assessment = $this->assessments->of($batch);
        $cook = $this->forecasts->cook($batch, $assessment);

        return $cook === null ? null : $this->forecasts->rescue($batch, $assessment, $cook);
    }

    /** When it would be served to be there nine times in ten; null where that is too far off. */
    public static function later(DishSheet $sheet): ?Instant
    {
        $ready = $sheet->schedule->readyBy(Planner::SURE);
        $serve = $sheet->schedule->dish->serve->epoch;
        if ($ready === null || $ready->epoch <= $serve || $ready->epoch - $serve > self::MOST_LATER) {
            return null;
        }

        return Instant::ofEpoch(self::QUARTER * (int) ceil($ready->epoch / self::QUARTER));
    }
}
