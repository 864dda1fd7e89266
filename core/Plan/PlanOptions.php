<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Instant;

/**
 * Options for a dish in conflict: each is planned completely, with all the other dishes unchanged, and offered only if
 * the plan improves.
 */
final readonly class PlanOptions
{
    private const MOST = 5;
    private const WRAPS_AT = 74.0; // °C, 165 °F
    private const GRAIN = 900; // seconds
    private const MOST_LATER = 3 * 3600;
    private const SHALLOW = 0.05; // m, two inches
    private const USUAL_REHEAT = 100 * 60; // seconds

    /** @param list<PitCapacity> $pits */
    public function __construct(private Planner $planner, private array $pits)
    {
    }

    /**
     * @param list<Dish> $dishes
     *
     * @return list<PlanOption> the best first; none where nothing is wrong with it or nothing here mends it
     */
    public function of(array $dishes, Schedule $now, string $id): array
    {
        $one = $now->of($id);
        if ($one === null || $one->dish->progress !== null || $now->conflictsOf($id) === []) {
            return [];
        }
        $found = [];
        foreach ($this->tries($one, $now) as [$kind, $dish]) {
            $then = $this->planner->schedule(
                array_map(
                    static fn (Dish $other): Dish => match (true) {
                        $other->id === $id => $dish,
                        // A meal is served later as a whole.
                        $other->serve->epoch === $one->dish->serve->epoch => $other->served($dish->serve),
                        default => $other,
                    },
                    $dishes,
                ),
            );
            $after = $then->of($id);
            if ($after !== null && $then->weight() < $now->weight() - 0.25) {
                $earlier = $one->load->epoch - $after->load->epoch;
                $left = $then->conflictsOf($id);
                $found[] = new PlanOption($kind, $after, $one->late, $earlier, $left, $then->weight() + $kind->price());
            }
        }
        usort($found, static fn (PlanOption $one, PlanOption $other): int => $one->weight <=> $other->weight);

        return self::different(self::worthIt($found, $now->conflictsOf($id)));
    }

    /**
     * The options that remove at least half of the dish's conflicts; all of them if none does.
     *
     * @param list<PlanOption> $found
     * @param list<Conflict> $before
     *
     * @return list<PlanOption>
     */
    private static function worthIt(array $found, array $before): array
    {
        $most = self::weigh($before) / 2;
        $worth = array_values(
            array_filter($found, static fn (PlanOption $one): bool => self::weigh($one->left) <= $most),
        );

        return $worth === [] ? $found : $worth;
    }

    /** @param list<Conflict> $conflicts */
    private static function weigh(array $conflicts): float
    {
        return array_sum(array_map(static fn (Conflict $one): float => $one->weight(), $conflicts));
    }

    /** @return list<array{PlanOptionKind, Dish}> */
    private function tries(DishSchedule $one, Schedule $now): array
    {
        $dish = $one->dish;
        $heat = $dish->heat;
        $late = $one->late > 0.0 || $one->load->epoch > $one->latestLoad->epoch;
        $hotter = $heat->hotter();
        $tries = [];
        if ($late && $heat->total === null) {
            if ($heat->wrap === null) {
                $tries[] = [PlanOptionKind::Wrap, $dish->cooked($heat->wrapped('foil', self::WRAPS_AT))];
            }
            if ($hotter->set <= HeatPlan::HOTTEST) {
                $tries[] = [PlanOptionKind::Hotter, $dish->cooked($hotter)];
                if ($heat->wrap === null) {
                    $tries[] = [
                        PlanOptionKind::HotterWrap,
                        $dish->cooked($hotter->wrapped('foil', self::WRAPS_AT)),
                    ];
                }
            }
        }
        if ($dish->load !== null && $dish->load->epoch > $one->latestLoad->epoch) {
            $tries[] = [PlanOptionKind::Earlier, $dish->loadedAt(self::grained($one->latestLoad))];
        }
        if ($one->fallsBelow > 0.0 && !$dish->rest->isKeptHot()) {
            $tries[] = [PlanOptionKind::Hold, $dish->rested($dish->rest->held(Holding::Cabinet))];
            $rest = $dish->rest;
            $cabinet = new DishRest(Holding::Cabinet, $rest->least, null, $rest->slicing);
            $tries[] = [PlanOptionKind::Cabinet, $dish->rested($cabinet)];
        }
        array_push($tries, ...$this->elsewhere($one, $now), ...$this->cooledOtherwise($dish));
        $ready = $one->readyBy(Planner::SURE);
        $later = $ready === null ? \PHP_INT_MAX : $ready->epoch - $dish->serve->epoch;
        if ($later > 0 && $later <= self::MOST_LATER) {
            $serve = Instant::ofEpoch($dish->serve->epoch + self::GRAIN * (int) ceil($later / self::GRAIN));
            $tries[] = [PlanOptionKind::ServeLater, $dish->loadedAt($one->load)->served($serve)];
        }
        if ($dish->chill === null && $dish->heat->total === null) {
            $chill = new ChillPlan(Holding::BlastChiller, self::SHALLOW, false, self::USUAL_REHEAT);
            $tries[] = [PlanOptionKind::Chill, $dish->loadedAt(null)->chilled($chill)];
        }

        return $tries;
    }

    /** @return list<array{PlanOptionKind, Dish}> */
    private function elsewhere(DishSchedule $one, Schedule $now): array
    {
        $dish = $one->dish;
        $tries = [];
        foreach ($this->pits as $pit) {
            if ($pit->name !== $dish->pit) {
                $tries[] = [PlanOptionKind::OtherPit, $dish->on($pit->name)];
            }
        }
        foreach ($now->conflictsOf($dish->id) as $conflict) {
            $other = $conflict->other === $dish->id ? $conflict->dish : $conflict->other;
            $beside = $other === null ? null : $now->of($other);
            if ($beside === null) {
                continue;
            }
            if ($conflict->kind === ConflictKind::TwoSets) {
                $tries[] = [PlanOptionKind::SameSet, $dish->cooked($dish->heat->at($beside->dish->heat->set))];
            }
            $tries[] = [PlanOptionKind::AfterOther, $dish->loadedAt(self::grained($beside->occupiesTo, true))];
        }

        return $tries;
    }

    /** @return list<array{PlanOptionKind, Dish}> */
    private function cooledOtherwise(Dish $dish): array
    {
        $chill = $dish->chill;
        if ($chill === null) {
            return [];
        }
        $shallow = min($chill->depth, self::SHALLOW);

        return [
            [
                PlanOptionKind::Shallower,
                $dish->chilled(new ChillPlan(Holding::ShallowPans, $shallow / 2, false, $chill->reheating)),
            ],
            [
                PlanOptionKind::BlastChiller,
                $dish->chilled(new ChillPlan(Holding::BlastChiller, $shallow, false, $chill->reheating)),
            ],
        ];
    }

    /** To a quarter of an hour: earlier, or later. */
    private static function grained(Instant $at, bool $isLater = false): Instant
    {
        $quarters = $at->epoch / self::GRAIN;

        return Instant::ofEpoch(self::GRAIN * (int) ($isLater ? ceil($quarters) : floor($quarters)));
    }

    /**
     * One of a kind; not two things at once where one of them is enough.
     *
     * @param list<PlanOption> $found
     *
     * @return list<PlanOption>
     */
    private static function different(array $found): array
    {
        $kept = [];
        foreach ($found as $one) {
            $kept[$one->kind->value] ??= $one;
        }
        foreach ([PlanOptionKind::Wrap, PlanOptionKind::Hotter] as $alone) {
            if (isset($kept[$alone->value]) && $kept[$alone->value]->left === []) {
                unset($kept[PlanOptionKind::HotterWrap->value]);
            }
        }

        return \array_slice(array_values($kept), 0, self::MOST);
    }
}
