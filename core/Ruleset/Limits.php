<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Where cold ends and hot begins. */
final readonly class Limits implements RulePart
{
    /**
     * @param CitedThreshold $receivedCold at the door
     * @param CitedThreshold $receivedFrozen at the door, for frozen food
     * @param string $receivedFrozenInterpretation our reading of the code there, to be named with the rule set
     * @param CitedThreshold $receivedHot at the door, for ready-to-eat food that arrives hot
     * @param CitedThreshold $hotRoast for a roast cooked by the low rows of the roast table
     */
    private function __construct(
        public CitedThreshold $receivedCold,
        public CitedThreshold $receivedFrozen,
        public string $receivedFrozenInterpretation,
        public CitedThreshold $receivedHot,
        public CitedThreshold $cold,
        public CitedThreshold $hot,
        public CitedThreshold $hotRoast,
    ) {
    }

    public static function key(): string
    {
        return 'limits';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            receivedCold: $fields->citedThreshold('received_cold'),
            receivedFrozen: $fields->citedThreshold('received_frozen'),
            receivedFrozenInterpretation: $fields->text('received_frozen_interpretation'),
            receivedHot: $fields->citedThreshold('received_hot'),
            cold: $fields->citedThreshold('cold'),
            hot: $fields->citedThreshold('hot'),
            hotRoast: $fields->citedThreshold('hot_roast'),
        );
    }
}
