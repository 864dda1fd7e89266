<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** The numbers of one edition of one food code, complete from the moment it exists. */
final readonly class RuleSet
{
    /** @param array<string, CookingRule> $cooking by the value of its category, one for each */
    public function __construct(
        public string $id,
        public string $title,
        public string $authority,
        public string $edition,
        public string $checked,
        public CitedThreshold $receivingCold,
        public CitedThreshold $cold,
        public CitedThreshold $hot,
        public CitedThreshold $hotRoast,
        public CitedThreshold $coolingMiddle,
        public CitedThreshold $reheatOwn,
        public CitedThreshold $reheatCommercial,
        public CitedThreshold $timeControlColdCeiling,
        private array $cooking,
        public LowRoastRows $lowRoastRows,
        public string $advisoryCitation,
        public CitedSpan $coolingStage1,
        public CitedSpan $coolingTotal,
        public CitedSpan $reheating,
        public TimeControlRules $timeControl,
        public DateMarkRules $dateMark,
        public CitedSpan $vacuumPack,
        public Monitoring $monitoring,
        public Tolerance $thermometerTolerance,
        public HouseLimits $house,
    ) {
    }

    public function cooking(CookingCategory $category): CookingRule
    {
        return $this->cooking[$category->value];
    }
}
