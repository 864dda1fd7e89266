<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Usual ingoing nitrite: shown beside a recipe's result; no verdict and no advice depends on it. */
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
