<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Holding;

/** Cook and chill: how it is cooled, and reheated before it is served. */
final readonly class ChillPlan
{
    /**
     * @param Holding $method one of CoolingOdds::methods()
     * @param float $depth m of the layer it is cooled in
     * @param int $reheating seconds from the cold until it is hot again
     */
    public function __construct(
        public Holding $method,
        public float $depth,
        public bool $isCovered,
        public int $reheating,
    ) {
    }
}
