<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Reheating for hot holding. */
final readonly class ReheatingRules implements RulePart
{
    private function __construct(
        public CitedThreshold $own,
        public CitedThreshold $commercial,
        public CitedSpan $within,
    ) {
    }

    public static function key(): string
    {
        return 'reheating';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            own: $fields->citedThreshold('own'),
            commercial: $fields->citedThreshold('commercial'),
            within: $fields->citedSpan('within'),
        );
    }
}
