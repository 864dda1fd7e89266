<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** How the figure of time in the danger zone is counted. */
final readonly class DangerZoneRules implements RulePart
{
    /** @param Span $hotSpan between two hot readings no farther apart food on the heat is taken to have been hot */
    private function __construct(public string $citation, public Span $hotSpan)
    {
    }

    public static function key(): string
    {
        return 'danger_zone';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(citation: $fields->citation(), hotSpan: $fields->span('hot_span_seconds'));
    }
}
