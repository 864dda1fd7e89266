<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/**
 * Thawing: in the cold, or under running water for no longer than this above the cold limit; food that is ready to eat
 * never above it.
 */
final readonly class ThawingRules implements RulePart
{
    private function __construct(
        public string $citation,
        public CitedThreshold $runningWater,
        public string $readyToEatCitation,
        public CitedSpan $aboveCold,
    ) {
    }

    public static function key(): string
    {
        return 'thawing';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            citation: $fields->citation(),
            runningWater: $fields->citedThreshold('running_water'),
            readyToEatCitation: $fields->text('ready_to_eat_citation'),
            aboveCold: $fields->citedSpan('above_cold'),
        );
    }
}
