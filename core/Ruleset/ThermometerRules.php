<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** How far off a thermometer may be. */
final readonly class ThermometerRules implements RulePart
{
    private function __construct(public Tolerance $tolerance)
    {
    }

    public static function key(): string
    {
        return 'thermometers';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(tolerance: $fields->part('tolerance')->tolerance());
    }
}
