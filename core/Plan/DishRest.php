<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Holding;

/** The steps between the heat and the plate. */
final readonly class DishRest
{
    /** Where food is kept hot as long as it is checked. */
    public const KEPT_HOT = [Holding::Cabinet, Holding::SteamTable];
    public const PLACES = [
        Holding::Rack,
        Holding::Towels,
        Holding::Box,
        Holding::DeadOven,
        Holding::Counter,
        Holding::Cabinet,
    ];

    /**
     * @param int $least seconds it should rest
     * @param Holding|null $hold where it is held hot after that; null if it stays where it rests
     * @param int $slicing seconds from the end of the rest to the pass
     */
    public function __construct(
        public Holding $place,
        public int $least,
        public ?Holding $hold,
        public int $slicing,
    ) {
    }

    public function held(Holding $hold): self
    {
        return new self($this->place, $this->least, $hold, $this->slicing);
    }

    /** Whether it is kept hot once it has rested. */
    public function isKeptHot(): bool
    {
        return $this->hold !== null || \in_array($this->place, self::KEPT_HOT, true);
    }
}
