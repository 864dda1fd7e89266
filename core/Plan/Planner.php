<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Measure\Instant;

/** Works each dish back from its service time and lists the conflicts. A plan is never a record. */
final readonly class Planner
{
    /** How sure a plan wants to be: nine times in ten. */
    public const SURE = 0.9;
    private const UNENDING = 24 * 3600; // seconds, in place of never
    private const SAME_SET = 5.0; // °C within which two dishes share a pit
    private const WAITS = 1800; // seconds that food below the hot limit may wait without a word

    /** @var \WeakMap<Dish, DishSchedule> worked out already: most dishes stay as they are while one is mended */
    private \WeakMap $known;

    /**
     * @param list<PitCapacity> $pits
     * @param list<Shift> $shifts empty if unknown
     * @param int $reheatsWithin seconds, as the code has it
     * @param list<Dish> $beside of other plans, which stand in the same pits
     */
    public function __construct(
        private TimeEstimates $times,
        private CoolingLimits $gates,
        private int $reheatsWithin,
        private array $pits,
        private array $shifts,
        private Instant $now,
        private array $beside = [],
    ) {
        $this->known = new \WeakMap();
    }

    /** @param list<Dish> $dishes */
    public function schedule(array $dishes): Schedule
    {
        $of = [];
        foreach ([...$dishes, ...$this->beside] as $dish) {
            $of[$dish->id] = $this->known[$dish] ??= $this->dish($dish);
        }
        $lighting = $this->lighting($of);
        $all = $beside = [];
        foreach ($of as $id => $one) {
            $one = isset($lighting[$id]) ? $this->lit($one) : $one;
            if (\count($all) < \count($dishes)) {
                $all[] = $one;
            } else {
                $beside[] = $one;
            }
        }
        $conflicts = array_merge($this->inPits($all, $beside), ...array_map($this->ofDish(...), $all));
        usort(
            $conflicts,
            static fn (Conflict $one, Conflict $other): int => $other->weight() <=> $one->weight(),
        );

        return new Schedule($all, $conflicts, $beside);
    }

    private function dish(Dish $dish): DishSchedule
    {
        $pieces = $dish->product->pieces;
        $time = $this->times->cook($dish->product, $dish->heat);
        $done = $dish->progress->done ?? $time->done->at($dish->pace)->ofLast($pieces);
        $serve = $dish->serve->epoch;
        $off = $dish->heat->total === null ? $done : Duration::exactly($dish->heat->total);
        $after = $dish->rest->least + $dish->rest->slicing;
        if ($dish->chill !== null) {
            $after += $this->gates->all + $dish->chill->reheating;
        }
        $latest = $serve - $after - ($off->by(self::SURE) ?? self::UNENDING);
        $load = $dish->progress->loaded ?? $dish->load ?? Instant::ofEpoch($latest);
        if ($dish->progress !== null && $dish->progress->loaded === null && $this->now->isAfter($load)) {
            $load = $this->now;
        }
        if ($dish->progress?->pulled !== null) {
            $off = Duration::exactly($dish->progress->pulled->epoch - $load->epoch);
        }
        $ready = $off->plus($after);
        $isHot = $dish->heat->target > $this->gates->hot;
        $hot = $isHot && $dish->chill === null && $dish->progress?->pulled === null
            ? $this->times->hot($dish->product, $dish->rest->place, $dish->heat->target)->ofFirst($pieces)
            : null;
        $window = $serve - $dish->rest->slicing - $load->epoch;
        [$hotUntil, $fallsBelow] = match (true) {
            $hot === null => [null, 0.0],
            $dish->rest->isKeptHot() => [null, 1.0 - $hot->longerThan($dish->rest->least)],
            default => [$this->hotUntil($load, $off, $hot), $off->thenOverBy($hot, $window)],
        };

        return new DishSchedule(
            $dish,
            $load,
            $this->steps($dish, $load, $time, $off),
            $done,
            $ready,
            $after,
            $ready->longerThan($serve - $load->epoch),
            $fallsBelow,
            $hotUntil,
            Instant::ofEpoch($latest),
            Instant::ofEpoch($load->epoch + ($off->by(self::SURE) ?? self::UNENDING)),
            $dish->chill === null ? null : $this->times->cooling($dish->chill),
            !$isHot && $dish->chill === null && $window - ($off->by(0.1) ?? 0) > $dish->rest->least + self::WAITS,
            $dish->heat->total === null || $dish->progress?->pulled !== null
                ? 0.0
                : $done->longerThan($dish->heat->total),
        );
    }

    private function hotUntil(Instant $load, Duration $off, Duration $hot): ?Instant
    {
        $stays = $hot->by(1.0 - self::SURE);
        $likely = $off->by(0.5);

        return $stays === null || $likely === null ? null : Instant::ofEpoch($load->epoch + $likely + $stays);
    }

    /** @return list<Step> */
    private function steps(Dish $dish, Instant $load, CookTime $time, Duration $off): array
    {
        $leads = $dish->leads;
        $before = [
            [StepKind::Thaw, $leads->thawed()],
            [StepKind::Inject, $leads->injected],
            [StepKind::Season, $leads->seasoned],
            [StepKind::Temper, $leads->tempered],
        ];
        $steps = [];
        foreach ($before as [$kind, $seconds]) {
            if ($seconds > 0) {
                $steps[] = new Step($kind, Instant::ofEpoch($load->epoch - $seconds));
            }
        }
        $steps[] = new Step(StepKind::Load, $load);
        $likely = $off->by(0.5) ?? self::UNENDING;
        $wrap = $time->wrapped?->at($dish->heat->wrapAt === null ? LearnedPace::usual() : $dish->pace);
        if ($wrap !== null && ($wrap->by(0.5) ?? $likely) < $likely) {
            $steps[] = self::open(StepKind::Wrap, $load->epoch, $wrap);
        }
        if ($dish->heat->sauced > 0) {
            $steps[] = self::open(StepKind::Sauce, $load->epoch - $dish->heat->sauced, $off);
        }
        $steps[] = self::open(StepKind::Pull, $load->epoch, $off);
        if ($dish->chill !== null) {
            $steps[] = self::open(StepKind::Cool, $load->epoch + $dish->rest->least, $off);
            $reheat = $dish->serve->epoch - $dish->rest->slicing - $dish->chill->reheating;
            $steps[] = new Step(StepKind::Reheat, Instant::ofEpoch($reheat));
        } elseif ($dish->rest->hold !== null) {
            $steps[] = self::open(StepKind::Hold, $load->epoch + $dish->rest->least, $off);
        }
        // A dish that comes off late is sliced after its rest, not before.
        $rested = $dish->chill === null ? $load->epoch + $likely + $dish->rest->least : 0;
        $steps[] = new Step(
            StepKind::Slice,
            Instant::ofEpoch(max($dish->serve->epoch - $dish->rest->slicing, $rested)),
        );
        usort($steps, static fn (Step $one, Step $other): int => $one->at->epoch <=> $other->at->epoch);

        return $steps;
    }

    private static function open(StepKind $kind, int $from, Duration $after): Step
    {
        [$earliest, $likely, $latest] = array_map(
            static fn (float $chance): Instant => Instant::ofEpoch($from + ($after->by($chance) ?? self::UNENDING)),
            [1.0 - self::SURE, 0.5, self::SURE],
        );

        return new Step($kind, $likely, $earliest, $latest);
    }

    private function lit(DishSchedule $one): DishSchedule
    {
        $at = Instant::ofEpoch($one->load->epoch - $one->dish->leads->fire);

        return $one->with(new Step(StepKind::Fire, $at));
    }

    /**
     * The dishes that light a fire: those whose pit is empty.
     *
     * @param array<string, DishSchedule> $all
     *
     * @return array<string, true> by id
     */
    private function lighting(array $all): array
    {
        $lighting = [];
        foreach ($all as $id => $one) {
            $from = $one->load->epoch - $one->dish->leads->fire;
            $isLit = false;
            foreach ($all as $other => $before) {
                $isLit = $isLit || (
                    $other !== $id
                    && $before->dish->pit === $one->dish->pit
                    && [$before->load->epoch, $other] < [$one->load->epoch, $id]
                    && $before->occupiesTo->epoch >= $from
                );
            }
            if (!$isLit && $one->dish->pit !== null && $one->dish->leads->fire > 0) {
                $lighting[$id] = true;
            }
        }

        return $lighting;
    }

    /** @return list<Conflict> */
    private function ofDish(DishSchedule $one): array
    {
        $dish = $one->dish;
        if ($this->now->isAfter($dish->serve)) {
            return []; // over: nothing of it can be done otherwise any more
        }
        $isBegun = $dish->progress !== null;
        $first = $isBegun ? null : $this->firstPast($one->steps);
        $chill = $dish->chill;
        $id = $dish->id;
        $found = [
            $chill !== null && $one->cooling !== null && $one->cooling->both < self::SURE
                ? new Conflict(ConflictKind::Gates, $id, chance: 1.0 - $one->cooling->both)
                : null,
            $chill !== null && $chill->reheating > $this->reheatsWithin
                ? new Conflict(ConflictKind::ReheatTooLong, $id)
                : null,
            $dish->heat->total === null && $one->done->by(self::SURE) === null
                ? new Conflict(ConflictKind::NeverDone, $id)
                : null,
            $one->late > 1.0 - self::SURE + 0.005
                ? new Conflict(ConflictKind::Late, $id, chance: $one->late, to: $one->readyBy(self::SURE))
                : null,
            $one->fallsBelow > 1.0 - self::SURE + 0.005
                ? new Conflict(ConflictKind::FallsBelow, $id, chance: $one->fallsBelow, from: $one->hotUntil)
                : null,
            $first === null ? null : new Conflict(ConflictKind::Past, $id, from: $first->at, step: $first->kind),
            $one->undone > 0.3 ? new Conflict(ConflictKind::Undone, $id, chance: $one->undone) : null,
            $one->isPulledCool ? new Conflict(ConflictKind::PulledCool, $id) : null,
            $dish->pit === null ? new Conflict(ConflictKind::NoPit, $id) : null,
            $isBegun ? null : $this->alone($one),
        ];

        return array_values(array_filter($found));
    }

    /** @param list<Step> $steps */
    private function firstPast(array $steps): ?Step
    {
        foreach ($steps as $step) {
            if ($step->at->epoch < $this->now->epoch) {
                return $step;
            }
        }

        return null;
    }

    private function alone(DishSchedule $one): ?Conflict
    {
        if ($this->shifts === []) {
            return null;
        }
        foreach ($one->steps as $step) {
            $isThere = false;
            foreach ($this->shifts as $shift) {
                $isThere = $isThere || $shift->covers($step->at);
            }
            if (!$isThere) {
                return new Conflict(ConflictKind::NobodyThere, $one->dish->id, from: $step->at, step: $step->kind);
            }
        }

        return null;
    }

    /**
     * @param list<DishSchedule> $own
     * @param list<DishSchedule> $beside
     *
     * @return list<Conflict> those between dishes of other plans are theirs
     */
    private function inPits(array $own, array $beside): array
    {
        $conflicts = [];
        $ids = array_fill_keys(array_map(static fn (DishSchedule $one): string => $one->dish->id, $own), true);
        $all = [...$own, ...$beside];
        foreach ($this->pits as $pit) {
            $in = array_values(
                array_filter(
                    $all,
                    fn (DishSchedule $one): bool => $one->dish->pit === $pit->name
                        && $one->occupiesTo->isAfter($this->now),
                ),
            );
            usort(
                $in,
                static fn (DishSchedule $one, DishSchedule $other): int => $one->load->epoch <=> $other->load->epoch,
            );
            foreach ($in as $place => $one) {
                $beside = array_values(
                    array_filter(
                        \array_slice($in, 0, $place),
                        static fn (DishSchedule $before): bool => $before->occupiesTo->epoch > $one->load->epoch,
                    ),
                );
                foreach ($beside as $before) {
                    if (abs($before->dish->heat->set - $one->dish->heat->set) > self::SAME_SET) {
                        $conflicts[] = self::between(ConflictKind::TwoSets, $one, $before);
                    }
                }
                $full = $one->dish->grams();
                foreach ($beside as $before) {
                    $full += $before->dish->grams();
                }
                if ($pit->grams !== null && $full > $pit->grams) {
                    $conflicts[] = self::between(
                        ConflictKind::NoRoom,
                        $one,
                        $beside[0] ?? null,
                        (int) round((100 * $full) / $pit->grams),
                    );
                }
            }
        }

        return array_values(
            array_filter(
                $conflicts,
                static fn (Conflict $one): bool => isset($ids[$one->dish]) || isset($ids[$one->other ?? '']),
            ),
        );
    }

    private static function between(
        ConflictKind $kind,
        DishSchedule $one,
        ?DishSchedule $before,
        ?int $percent = null,
    ): Conflict {
        $to = min($one->occupiesTo->epoch, $before->occupiesTo->epoch ?? \PHP_INT_MAX);

        return new Conflict(
            $kind,
            $one->dish->id,
            $before?->dish->id,
            $one->load,
            Instant::ofEpoch($to),
            percent: $percent,
        );
    }
}
