<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;

/** A conflict of a plan, as facts; the sentence is made in the interface. */
final readonly class Conflict
{
    /**
     * @param string $dish its id
     * @param string|null $other the id of the dish it is in the way of
     * @param float|null $chance 0 to 1, that it goes wrong
     * @param int|null $percent of a pit's room
     */
    public function __construct(
        public ConflictKind $kind,
        public string $dish,
        public ?string $other = null,
        public ?Instant $from = null,
        public ?Instant $to = null,
        public ?float $chance = null,
        public ?int $percent = null,
        public ?StepKind $step = null,
    ) {
    }

    public function isOf(string $dish): bool
    {
        return $this->dish === $dish || $this->other === $dish;
    }

    /** Its weight: the surer, the more. */
    public function weight(): float
    {
        return $this->kind->weight() * (0.5 + ($this->chance ?? 0.5));
    }
}
