<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** A changed plan for a dish, and its benefit. */
final readonly class PlanOption
{
    /**
     * @param DishSchedule $after the dish as it then would be
     * @param float $lateBefore 0 to 1
     * @param int $earlier seconds by which it is loaded earlier; negative for later
     * @param list<Conflict> $left remaining conflicts of the dish
     */
    public function __construct(
        public PlanOptionKind $kind,
        public DishSchedule $after,
        public float $lateBefore,
        public int $earlier,
        public array $left,
        public float $weight,
    ) {
    }
}
