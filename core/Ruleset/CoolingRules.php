<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Cooling of cooked food, past two gates. */
final readonly class CoolingRules implements RulePart
{
    private function __construct(public CitedThreshold $middle, public CitedSpan $stage1, public CitedSpan $total)
    {
    }

    public static function key(): string
    {
        return 'cooling';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            middle: $fields->citedThreshold('middle'),
            stage1: $fields->citedSpan('stage1'),
            total: $fields->citedSpan('total'),
        );
    }
}
