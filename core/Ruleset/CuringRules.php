<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** What is usual of nitrite that goes in: shown beside what a recipe comes to; no verdict and no advice rests on it. */
final readonly class CuringRules implements RulePart
{
    /** @param list<CuringLimit> $limits */
    private function __construct(public array $limits)
    {
    }

    public static function key(): string
    {
        return 'curing';
    }

    public static function none(): self
    {
        return new self([]);
    }

    public static function read(RuleFields $fields): self
    {
        $limits = [];
        foreach ($fields->objects('limits') as $one) {
            $limits[] = new CuringLimit(
                $one->choice('of', CuredMeat::Comminuted),
                (float) $one->whole('ppm'),
                $one->citation(),
            );
        }

        return new self($limits);
    }
}
