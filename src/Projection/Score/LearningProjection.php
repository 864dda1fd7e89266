<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Score;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Learning\LearnedPriors;
use Verjuicer\App\Projection\Projection;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\Learning\BatchReplay;
use Verjuicer\Core\Measure\Span;

/** Learns from each batch once it is over. It runs after the response. */
final readonly class LearningProjection implements Projection
{
    /** Older ones are heard no more: pits and hands change. */
    private const HEARD_FOR_DAYS = 200;

    private BatchReplay $lessons;

    public function __construct(private LearnedPriors $priors, private Forecasts $forecasts, private Now $now)
    {
        $this->lessons = new BatchReplay(new Assessor());
    }

    public function shape(): string
    {
        return 'own 3';
    }

    public function write(Batch $batch, Assessment $assessment): void
    {
        $end = $assessment->timeline->end;
        if ($end === null || $this->now->instant()->isAfter($end->plus(Span::ofHours(24 * self::HEARD_FOR_DAYS)))) {
            return;
        }
        if ($this->forecasts->mayBeEarlier()) {
            $this->forecasts->owe($batch, $this->now->instant());

            return;
        }
        $this->priors->hear($batch, $end, $this->lessons->of($assessment));
    }
}
