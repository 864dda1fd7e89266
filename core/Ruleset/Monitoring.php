<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** The longest gap between readings that still documents the time between them. */
final readonly class Monitoring implements RulePart
{
    private function __construct(public CitedSpan $hotHoldGap, public CitedSpan $restGap)
    {
    }

    public static function key(): string
    {
        return 'monitoring';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(hotHoldGap: $fields->citedSpan('hot_hold_gap'), restGap: $fields->citedSpan('rest_gap'));
    }
}
