<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Holding;

/** What a place does to meat that is warmer than it: how warm it usually is there, and how much heat it takes. */
final readonly class Surroundings
{
    /**
     * @param array{float, float} $celsius °C around the meat, the coldest and the warmest it usually is
     * @param array{float, float} $transfer W/(m² K), the least and the most heat it usually takes
     */
    private function __construct(public Holding $holding, public array $celsius, public array $transfer)
    {
    }

    /** @return self|null null where nobody can say: a carrier or a chafing dish may be heated or not */
    public static function of(Holding $holding): ?self
    {
        return match ($holding) {
            Holding::Rack => new self($holding, [16.0, 32.0], [5.0, 14.0]),
            Holding::Towels => new self($holding, [18.0, 40.0], [1.5, 5.0]),
            Holding::Box => new self($holding, [22.0, 52.0], [0.8, 3.0]),
            Holding::DeadOven => new self($holding, [22.0, 60.0], [2.0, 9.0]),
            Holding::Cabinet, Holding::SteamTable => new self($holding, [55.0, 70.0], [3.0, 10.0]),
            Holding::Counter => new self($holding, [16.0, 32.0], [7.0, 18.0]),
            Holding::WalkIn => new self($holding, [1.0, 7.0], [6.0, 20.0]),
            Holding::ShallowPans => new self($holding, [1.0, 7.0], [8.0, 25.0]),
            Holding::BlastChiller => new self($holding, [-18.0, 0.0], [18.0, 70.0]),
            Holding::Freezer => new self($holding, [-25.0, -12.0], [6.0, 20.0]),
            Holding::IceBath => new self($holding, [0.0, 3.0], [60.0, 250.0]),
            Holding::IceWand => new self($holding, [0.0, 3.0], [60.0, 300.0]),
            Holding::ChafingDish, Holding::Carrier => null,
        };
    }

    /** The same where somebody measured or noted how warm it is there. */
    public function around(float $celsius, float $give = 0.0): self
    {
        return new self($this->holding, [$celsius - $give, $celsius + $give], $this->transfer);
    }
}
