<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\Dish;
use Verjuicer\Core\Plan\PitCapacity;
use Verjuicer\Core\Plan\Planner;
use Verjuicer\Core\Plan\PlanOption;
use Verjuicer\Core\Plan\PlanOptions;
use Verjuicer\Core\Plan\Schedule;
use Verjuicer\Core\Plan\Step;

/** A plan as it comes out: its dishes, when everything is, and what it breaks. */
final readonly class PlanSheet
{
    /**
     * @param list<DishSheet> $dishes
     * @param list<PitCapacity> $pits
     * @param array<string, string> $names of dishes, those of other plans among them, by id
     */
    public function __construct(
        public Plan $plan,
        public array $dishes,
        public Schedule $schedule,
        public array $pits,
        public array $names,
        private Planner $planner,
    ) {
    }

    public function dish(string $id): ?DishSheet
    {
        foreach ($this->dishes as $one) {
            if ($one->dish->id->toRfc4122() === $id) {
                return $one;
            }
        }

        return null;
    }

    /** @return list<array{step: Step, dish: DishSheet}> all that hands do, in order */
    public function steps(): array
    {
        $steps = [];
        foreach ($this->dishes as $one) {
            foreach ($one->schedule->steps as $step) {
                $steps[] = ['step' => $step, 'dish' => $one];
            }
        }
        usort(
            $steps,
            static fn (array $one, array $other): int => $one['step']->at->epoch <=> $other['step']->at->epoch,
        );

        return $steps;
    }

    /**
     * @return list<array{service: Service, chance: float, by: Instant|null, late: list<DishSheet>}> each meal: the
     *     chance that all of it is there in time, by when it is nine times in ten, and what is not as sure on its own
     */
    public function meals(): array
    {
        $meals = [];
        foreach ($this->plan->services() as $service) {
            $of = array_values(
                array_filter(
                    $this->dishes,
                    static fn (DishSheet $one): bool => $one->service->id === $service->id,
                ),
            );
            if ($of !== []) {
                $meals[] = [
                    'service' => $service,
                    'chance' => $this->schedule->allThere($service->at),
                    'by' => $this->schedule->allThereBy($service->at, Planner::SURE),
                    'late' => array_values(
                        array_filter($of, static fn (DishSheet $one): bool => $one->isLate()),
                    ),
                ];
            }
        }

        return $meals;
    }

    /** @return array<string, list<DishSheet>> what is short, by supplier; '' where nobody knows one */
    public function shopping(): array
    {
        $lists = [];
        foreach ($this->dishes as $one) {
            if ($one->short > 0 && $one->dish->batch === null) {
                $lists[$one->onHand->supplier ?? ''][] = $one;
            }
        }
        ksort($lists);

        return $lists;
    }

    /** @return array{int, int}|null cents a guest of the plan, of all its dishes with a price */
    public function centsAGuest(): ?array
    {
        $least = $most = 0;
        $isKnown = false;
        foreach ($this->dishes as $one) {
            $plate = $one->centsAPlate();
            if ($plate !== null) {
                $isKnown = true;
                $least += $plate[0] * $one->facts->portions;
                $most += $plate[1] * $one->facts->portions;
            }
        }
        $guests = array_sum(array_map(static fn (Service $one): int => $one->guests, $this->plan->services()));

        return $isKnown && $guests > 0 ? [(int) round($least / $guests), (int) round($most / $guests)] : null;
    }

    /** @return list<DishSheet> of which nobody knows a price */
    public function unpriced(): array
    {
        return array_values(
            array_filter($this->dishes, static fn (DishSheet $one): bool => $one->centsAPlate() === null),
        );
    }

    /** @return list<PlanOption> */
    public function waysOut(DishSheet $of): array
    {
        return (new PlanOptions($this->planner, $this->pits))->of(
            array_map(static fn (DishSheet $one): Dish => $one->schedule->dish, $this->dishes),
            $this->schedule,
            $of->schedule->dish->id,
        );
    }
}
