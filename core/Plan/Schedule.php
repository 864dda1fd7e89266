<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;

/** All dishes of a plan on one time axis, with its conflicts. */
final readonly class Schedule
{
    private const GRAIN = 300; // seconds

    /**
     * @param list<DishSchedule> $dishes
     * @param list<Conflict> $conflicts the heaviest first
     * @param list<DishSchedule> $beside dishes of other plans
     */
    public function __construct(public array $dishes, public array $conflicts, public array $beside = [])
    {
    }

    public function of(string $dish): ?DishSchedule
    {
        foreach ([...$this->dishes, ...$this->beside] as $one) {
            if ($one->dish->id === $dish) {
                return $one;
            }
        }

        return null;
    }

    /** @return list<Conflict> */
    public function conflictsOf(string $dish): array
    {
        return array_values(array_filter($this->conflicts, static fn (Conflict $one): bool => $one->isOf($dish)));
    }

    /** How bad it is altogether. */
    public function weight(): float
    {
        return array_sum(array_map(static fn (Conflict $one): float => $one->weight(), $this->conflicts));
    }

    /** 0 to 1: the chance that all of a meal is there, as if each dish were late on its own account. */
    public function allThere(Instant $serve): float
    {
        $chance = 1.0;
        foreach ($this->servedAt($serve) as $one) {
            $chance *= 1.0 - $one->late;
        }

        return $chance;
    }

    /** By when all of it is there with a chance; null where some of it may never be. */
    public function allThereBy(Instant $serve, float $chance): ?Instant
    {
        $of = $this->servedAt($serve);
        $at = $serve->epoch - 12 * 3600;
        for ($to = $serve->epoch + 24 * 3600; $at <= $to; $at += self::GRAIN) {
            $there = 1.0;
            foreach ($of as $one) {
                $there *= 1.0 - $one->ready->longerThan($at - $one->load->epoch);
            }
            if ($there >= $chance) {
                return Instant::ofEpoch($at);
            }
        }

        return null;
    }

    /** @return list<DishSchedule> */
    private function servedAt(Instant $serve): array
    {
        return array_values(
            array_filter(
                $this->dishes,
                static fn (DishSchedule $one): bool => $one->dish->serve->epoch === $serve->epoch,
            ),
        );
    }
}
