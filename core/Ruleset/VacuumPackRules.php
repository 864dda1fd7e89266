<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Vacuum packs made on site without an approved plan. */
final readonly class VacuumPackRules implements RulePart
{
    private function __construct(public CitedSpan $within, public string $fishCitation)
    {
    }

    public static function key(): string
    {
        return 'vacuum_pack';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(within: $fields->citedSpan('within'), fishCitation: $fields->part('fish')->citation());
    }
}
