<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Food\Holding;

/** The effect of a place on warmer meat: its usual temperature, and how much heat it takes. */
final readonly class Surroundings
{
    /**
     * @param array{float, float} $celsius °C around the meat, the coldest and the warmest it usually is
     * @param array{float, float} $transfer W/(m² K), the least and the most heat it usually takes
     * @param array{float, float, float} $excess °C by how much warmer it is at first, least and most, and the seconds
     *     in which that fades: an oven that cools, air that a warm load raises, a box that warms itself
     */
    private function __construct(
        public Holding $holding,
        public array $celsius,
        public array $transfer,
        public array $excess = [0.0, 0.0, 1.0],
    ) {
    }

    /** @return self|null null if unknown: a carrier or a chafing dish may be heated or not */
    public static function of(Holding $holding): ?self
    {
        return match ($holding) {
            Holding::Rack => new self($holding, [16.0, 32.0], [3.5, 19.0]),
            Holding::Towels => new self($holding, [19.0, 33.0], [2.0, 5.2]),
            Holding::Box => new self($holding, [24.0, 46.0], [1.1, 3.0], [-15.0, 0.0, 3600.0]),
            Holding::DeadOven => new self($holding, [20.0, 32.0], [3.2, 12.0], [10.0, 75.0, 7500.0]),
            Holding::Cabinet, Holding::SteamTable => new self($holding, [55.0, 70.0], [3.0, 10.0]),
            Holding::Counter => new self($holding, [16.0, 32.0], [4.2, 22.0]),
            Holding::WalkIn => new self($holding, [0.8, 5.0], [6.0, 19.0], [0.0, 5.0, 7000.0]),
            Holding::ShallowPans => new self($holding, [0.8, 5.0], [8.5, 20.0], [0.0, 5.0, 7000.0]),
            Holding::BlastChiller => new self($holding, [-12.0, 1.0], [18.0, 48.0], [0.0, 8.0, 2400.0]),
            Holding::Freezer => new self($holding, [-25.0, -12.0], [6.0, 20.0]),
            Holding::IceBath => new self($holding, [0.0, 2.0], [60.0, 250.0], [0.0, 4.0, 2400.0]),
            Holding::IceWand => new self($holding, [0.0, 2.0], [60.0, 300.0], [0.0, 4.0, 2400.0]),
            Holding::ChafingDish, Holding::Carrier => null,
        };
    }
}
