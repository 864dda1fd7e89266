<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Plan\ConflictKind;
use Verjuicer\Core\Plan\DishSchedule;
use Verjuicer\Core\Plan\PitCapacity;
use Verjuicer\Core\Plan\StepKind;

/** Where everything of a plan is drawn: a strip a dish, a strip a pit, on one axis of time. */
final readonly class PlanPicture
{
    public const WIDTH = 580;
    private const HOUR = 3600;
    private const TICKS = 12;
    private const LABEL = 6.6; // a letter

    /**
     * @param list<array{x: float, label: string, is_midnight: bool}> $hours
     * @param array<string, list<PlanBar>> $bars by the id of the dish
     * @param array<string, array{from: float, likely: float, to: float}|null> $spreads when it may be done, by dish
     * @param array<string, array{x: float, label: string, label_x: float}|null> $hotUntil by dish
     * @param array<string, float> $serves by dish
     * @param array<string, PlanBar> $planned on the heat as it was planned, of real batches, by dish
     * @param list<array{pit: PitCapacity, spans: list<PlanBar>}> $pits
     */
    private function __construct(
        public TimeAxis $axis,
        public array $hours,
        public array $bars,
        public array $spreads,
        public array $hotUntil,
        public array $serves,
        public array $planned,
        public array $pits,
        public ?float $now,
    ) {
    }

    public static function of(PlanSheet $sheet, PlanWords $words, MeasureFormatter $figures, Instant $now): self
    {
        $zone = $sheet->plan->site->zone();
        $axis = self::axis($sheet, $now);
        $bars = $spreads = $hot = $serves = $planned = [];
        foreach ($sheet->dishes as $one) {
            $id = $one->dish->id->toRfc4122();
            $bars[$id] = self::bars($one->schedule, $axis);
            $spreads[$id] = self::spread($one->schedule, $axis);
            $hot[$id] = self::hotUntil($one->schedule, $axis, $zone, $figures);
            $serves[$id] = $axis->clampedX($one->schedule->dish->serve);
            $was = $one->dish->planned();
            if ($was !== null) {
                $planned[$id] = PlanBar::between(
                    'planned',
                    $axis->clampedX($was->load),
                    $axis->clampedX($was->likely),
                );
            }
        }
        $pits = [];
        foreach ($sheet->pits as $pit) {
            $spans = self::inPit($sheet, $pit, $axis);
            if ($spans !== []) {
                $pits[] = ['pit' => $pit, 'spans' => $spans];
            }
        }

        return new self(
            $axis,
            self::hours($sheet, $axis, $words, $figures),
            $bars,
            $spreads,
            $hot,
            $serves,
            $planned,
            $pits,
            $axis->shows($now) ? $axis->x($now) : null,
        );
    }

    /** @return list<array{x: float, label: string, is_midnight: bool}> midnight says which day begins */
    private static function hours(PlanSheet $sheet, TimeAxis $axis, PlanWords $words, MeasureFormatter $figures): array
    {
        $site = $sheet->plan->site;
        $hours = [];
        foreach ($axis->hours($site->zone(), $figures, self::TICKS) as $hour) {
            if ($hour['is_midnight']) {
                $share = $hour['x'] / self::WIDTH;
                $at = $axis->from->epoch + (int) round($share * ($axis->to->epoch - $axis->from->epoch));
                $hour['label'] = $words->weekday(Instant::ofEpoch($at + self::HOUR), $site);
            }
            $hours[] = $hour;
        }

        return $hours;
    }

    private static function axis(PlanSheet $sheet, Instant $now): TimeAxis
    {
        $from = $to = null;
        foreach ($sheet->dishes as $one) {
            $begins = ($one->schedule->step(StepKind::Fire) ?? $one->schedule->step(StepKind::Temper))->at
                ?? $one->schedule->load;
            $from = min($from ?? \PHP_INT_MAX, $begins->epoch, $one->schedule->load->epoch);
            $pull = $one->schedule->step(StepKind::Pull)?->at->epoch ?? 0;
            $to = max($to ?? 0, $one->schedule->dish->serve->epoch, $pull);
        }
        $from ??= $now->epoch;
        $to ??= $sheet->plan->last()->epoch;

        return new TimeAxis(
            Instant::ofEpoch($from - self::HOUR),
            Instant::ofEpoch($to + self::HOUR),
            0,
            self::WIDTH,
        );
    }

    /** @return list<PlanBar> */
    private static function bars(DishSchedule $one, TimeAxis $axis): array
    {
        $at = static fn (StepKind $kind): ?Instant => $one->step($kind)?->at;
        $pull = $at(StepKind::Pull) ?? $one->load;
        $slice = $at(StepKind::Slice) ?? $one->dish->serve;
        $rested = Instant::ofEpoch($pull->epoch + $one->dish->rest->least);
        $reheat = $at(StepKind::Reheat);
        $spans = [
            ['fire', $at(StepKind::Fire) ?? $at(StepKind::Temper), $one->load],
            ['cook', $one->load, $pull],
            ['rest', $pull, self::earlier($rested, $reheat ?? $slice)],
        ];
        if ($one->dish->progress?->pulled !== null) {
            array_pop($spans); // what a real batch does off the heat is not what was planned, but what its record shows
        } elseif ($reheat !== null) {
            $spans[] = ['cool', $rested, $reheat];
            $spans[] = ['reheat', $reheat, $slice];
        } else {
            $spans[] = [$one->dish->rest->isKeptHot() ? 'hot_hold' : 'rest', $rested, $slice];
        }
        $bars = [];
        foreach ($spans as [$look, $from, $to]) {
            if ($from !== null && $to->isAfter($from)) {
                $bars[] = PlanBar::between($look, $axis->clampedX($from), $axis->clampedX($to));
            }
        }

        return $bars;
    }

    private static function earlier(Instant $one, Instant $other): Instant
    {
        return $one->isAfter($other) ? $other : $one;
    }

    /** @return array{from: float, likely: float, to: float}|null */
    private static function spread(DishSchedule $one, TimeAxis $axis): ?array
    {
        $pull = $one->step(StepKind::Pull);

        return $pull?->earliest === null || $pull->latest === null || !$pull->isOpen()
            ? null
            : [
                'from' => $axis->clampedX($pull->earliest),
                'likely' => $axis->clampedX($pull->at),
                'to' => $axis->clampedX($pull->latest),
            ];
    }

    /** @return array{x: float, label: string, label_x: float}|null */
    private static function hotUntil(
        DishSchedule $one,
        TimeAxis $axis,
        TimeZone $zone,
        MeasureFormatter $figures,
    ): ?array {
        if ($one->hotUntil === null || !$axis->shows($one->hotUntil)) {
            return null;
        }
        $label = $figures->time($one->hotUntil, $zone);
        $x = $axis->x($one->hotUntil);

        return [
            'x' => $x,
            'label' => $label,
            'label_x' => min($x + 4, self::WIDTH - self::LABEL * mb_strlen($label)),
        ];
    }

    /** @return list<PlanBar> of this plan and of others, as long as they are in sight */
    private static function inPit(PlanSheet $sheet, PitCapacity $pit, TimeAxis $axis): array
    {
        $spans = [];
        foreach ([...$sheet->schedule->dishes, ...$sheet->schedule->beside] as $one) {
            $isInSight = $one->occupiesTo->isAfter($axis->from) && $axis->to->isAfter($one->load);
            if ($one->dish->pit !== $pit->name || !$isInSight) {
                continue;
            }
            $isWrong = false;
            foreach ($sheet->schedule->conflictsOf($one->dish->id) as $conflict) {
                $isWrong = $isWrong
                    || \in_array($conflict->kind, [ConflictKind::TwoSets, ConflictKind::NoRoom], true);
            }
            $share = $pit->grams === null ? null : (int) round((100 * $one->dish->grams()) / $pit->grams);
            $spans[] = PlanBar::between(
                $isWrong ? 'pit_wrong' : 'pit',
                $axis->clampedX($one->load),
                $axis->clampedX($one->occupiesTo),
                $sheet->names[$one->dish->id].($share === null ? '' : ' '.$share.' %'),
            );
        }

        return $spans;
    }
}
