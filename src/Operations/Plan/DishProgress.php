<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\HeatTimes;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\Duration;
use Verjuicer\Core\Plan\Progress;

/** How far planned dishes are that are real batches, and when those on the heat are likely to be done. */
final readonly class DishProgress
{
    public function __construct(
        private HeatTimes $heatTimes,
        private Assessments $assessments,
        private Forecasts $forecasts,
        private Now $now,
    ) {
    }

    /**
     * @param list<PlannedDish> $dishes
     *
     * @return array<string, Progress> by the id of the dish, of those that are real
     */
    public function of(array $dishes): array
    {
        $batches = [];
        foreach ($dishes as $dish) {
            if ($dish->batch !== null) {
                $batches[$dish->id->toRfc4122()] = $dish->batch;
            }
        }
        $ids = array_map(static fn (Batch $one): string => $one->id->toRfc4122(), array_values($batches));
        $times = $this->heatTimes->of($ids);
        $found = [];
        foreach ($batches as $dish => $batch) {
            $time = $times[$batch->id->toRfc4122()] ?? null;
            $isOnHeat = $time !== null && $time->pulled === null;
            $found[$dish] = new Progress(
                $time?->loaded,
                $time?->pulled,
                $isOnHeat ? $this->done($batch, $time->loaded) : null,
                $time?->pit,
            );
        }

        return $found;
    }

    private function done(Batch $batch, Instant $loaded): ?Duration
    {
        $outlook = $this->forecasts->cook($batch, $this->assessments->of($batch));
        if ($outlook === null) {
            return null;
        }
        $odds = $outlook->done();

        return match (true) {
            $outlook->isReached => Duration::exactly($this->now->instant()->epoch - $loaded->epoch),
            $odds !== null => Duration::of($odds, $loaded->epoch),
            default => null,
        };
    }
}
