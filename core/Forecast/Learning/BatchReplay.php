<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Learning;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\ParameterSample;
use Verjuicer\Core\Forecast\Belief\Place;
use Verjuicer\Core\Forecast\Belief\Surroundings;
use Verjuicer\Core\Measure\Instant;

/**
 * Samples learned from a finished batch: the model is fitted again as of the moment before it left the heat, and before
 * it was moved from rest or cooling. The same record always gives the same samples.
 */
final readonly class BatchReplay
{
    /** Readings of one spot in the stage below which it teaches nothing. */
    private const LEAST = 2;

    public function __construct(private Assessor $assessor)
    {
    }

    /** @return list<LearnedSample> */
    public function of(Assessment $over): array
    {
        $lessons = [];
        $stages = $over->timeline->stages;
        foreach ($stages as $index => $stage) {
            $isLastOfCook = $stage->is(Cook::class) && ($stages[$index + 1] ?? null)?->is(Cook::class) !== true;
            $holding = Place::of($stage->event->detail)?->holding;
            if ($stage->isOpen || (!$isLastOfCook && ($holding === null || Surroundings::of($holding) === null))) {
                continue;
            }
            $shown = $this->shown($over, $stage);
            if ($isLastOfCook) {
                $pit = self::pit($over, $index);
                array_push(
                    $lessons,
                    ...self::lesson(LearningSubject::Product, self::product($over), $shown),
                    ...self::lesson(LearningSubject::Pit, $pit, $shown),
                );
            } elseif ($holding !== null) {
                array_push($lessons, ...self::lesson(LearningSubject::Method, $holding->value, $shown));
            }
        }

        return $lessons;
    }

    /**
     * The product, pit and method of a batch now, to look up learned values.
     *
     * @return array<string, string> by the value of `LearningSubject`
     */
    public static function subjects(Assessment $assessment): array
    {
        $stages = $assessment->timeline->stages;
        $last = \count($stages) - 1;
        $place = $last < 0 ? null : Place::of($stages[$last]->event->detail)?->holding;

        return array_filter(
            [
                LearningSubject::Product->value => self::product($assessment),
                LearningSubject::Pit->value => self::pit($assessment, $last),
                LearningSubject::Method->value => $place?->value,
            ],
            static fn (?string $subject): bool => $subject !== null,
        );
    }

    /** @return array<int, array{float, float}> by unknown; none where too little was read */
    private function shown(Assessment $over, Stage $stage): array
    {
        $asOf = Instant::ofEpoch($stage->to->epoch - 1);
        if ($asOf->epoch <= $stage->from->epoch) {
            return [];
        }
        $then = $this->assessor->assess($over->record, $over->rules, $asOf);
        $suspect = array_fill_keys($then->suspectReadings, true);
        $counts = [];
        foreach ($then->timeline->readings->byTrack() as $track => $trace) {
            foreach ($trace->all() as $reading) {
                if ($reading->order >= $stage->order && !isset($suspect[$reading->id])) {
                    $counts[$track] = ($counts[$track] ?? 0) + 1;
                }
            }
        }
        arsort($counts);
        $track = array_key_first($counts);
        if ($track === null || $counts[$track] < self::LEAST) {
            return [];
        }
        $belief = Beliefs::of($then, 1)->ofTrack((string) $track);
        $shown = $belief->shown ?? [];
        if (isset($over->record->product->extensions['thickness_mm']) || $over->record->product->rawWeight === null) {
            // The thickness was measured, or the prior has no usual value.
            unset($shown[ParameterSample::HALF], $shown[ParameterSample::SHAPE]);
        }

        return $shown;
    }

    /**
     * @param array<int, array{float, float}> $shown
     *
     * @return list<LearnedSample>
     */
    private static function lesson(LearningSubject $of, ?string $subject, array $shown): array
    {
        $its = array_intersect_key($shown, array_flip($of->unknowns()));

        return $subject === null || $its === [] ? [] : [new LearnedSample($of, $subject, $its)];
    }

    private static function product(Assessment $assessment): ?string
    {
        $name = trim($assessment->record->product->name ?? '');

        return $name === '' ? null : $name;
    }

    /** The pit of the last cook up to a stage, as it was named. */
    private static function pit(Assessment $assessment, int $until): ?string
    {
        for ($index = $until; $index >= 0; --$index) {
            $detail = $assessment->timeline->stages[$index]->event->detail;
            if ($detail instanceof Cook) {
                return $detail->pit;
            }
        }

        return null;
    }
}
