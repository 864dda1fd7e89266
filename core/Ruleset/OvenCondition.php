<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Weight;

/** The oven setting, by the weight of the roast, that opens the low rows of the roast table. */
final readonly class OvenCondition
{
    public function __construct(
        public Oven $oven,
        private WeightClass $weightClass,
        private Weight $split,
        private ?Threshold $atLeast,
        private ?Threshold $atMost,
    ) {
    }

    public static function read(RuleFields $fields, Weight $split): self
    {
        $atLeast = $fields->has('at_least') ? $fields->part('at_least')->threshold() : null;
        $atMost = $fields->has('at_most') ? $fields->part('at_most')->threshold() : null;
        if (($atLeast === null) === ($atMost === null)) {
            $fields->wrong('at_least', 'or "at_most": exactly one is required');
        }

        return new self(
            $fields->choice('oven', Oven::Still),
            $fields->choice('weight', WeightClass::Any),
            $split,
            $atLeast,
            $atMost,
        );
    }

    /** @param Weight|null $raw of one roast before cooking; unknown, it meets only a condition for any weight */
    public function isMetBy(Oven $oven, Temperature $set, ?Weight $raw): bool
    {
        return $oven === $this->oven
            && $this->weightClass->holds($raw, $this->split)
            && ($this->atLeast === null || $set->isAtLeast($this->atLeast))
            && ($this->atMost === null || $set->isAtMost($this->atMost));
    }
}
