<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Plan;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Forecast\CookRescue;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\Planner;

/** Ways out for a planned batch that is on the heat and runs late. */
final readonly class DishRescues
{
    private const QUARTER = 900; // seconds
    private const MOST_LATER = 4 * 3600;
    /** Stages of food that could be served in its place. */
    private const HELD = ['hot_hold', 'cold_hold', 'rest'];

    public function __construct(private Assessments $assessments, private Forecasts $forecasts, private Lanes $lanes)
    {
    }

    /** @return array{rescue: CookRescue|null, later: Instant|null, held: list<Lane>} */
    public function of(DishSheet $sheet): array
    {
        $batch = $sheet->dish->batch;

        return [
            'rescue' => $batch === null || $sheet->schedule->dish->progress?->pulled !== null
                ? null
                : $this->forecasts->rescue($batch, $this->assessments->of($batch)),
            'later' => self::later($sheet),
            'held' => array_values(
                array_filter(
                    $this->lanes->open($sheet->dish->site)->lanes,
                    static fn (Lane $one): bool => $one->product === $sheet->dish->product->name
                        && $one->batchId !== $batch?->id->toRfc4122()
                        && \in_array($one->stage(), self::HELD, true),
                ),
            ),
        ];
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
