<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Plan\Dish;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\PurchaseNeed;
use Verjuicer\Core\Plan\YieldShares;

/** What a dish is planned from. */
final readonly class DishBasis
{
    /** @param int $short g that have to be bought, once what is served before has taken its share */
    public function __construct(
        public PlannedDish $dish,
        public DishFacts $facts,
        public PurchaseNeed $need,
        public int $pieces,
        public YieldShares $shares,
        public LearnedPace $pace,
        public ?OnHand $onHand,
        public int $short,
        public Dish $planned,
    ) {
    }
}
