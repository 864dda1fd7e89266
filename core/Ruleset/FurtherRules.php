<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Rules of a code that decide no verdict here. A code without one has null. */
final readonly class FurtherRules implements RulePart
{
    /** @param CitedSpan|null $ambient how long a side made from ingredients at room temperature may take to get cold */
    private function __construct(
        public ?string $parasites,
        public ?CitedSpan $ambient,
        public ?string $microwave,
        public ?string $roastAgain,
    ) {
    }

    public static function key(): string
    {
        return 'further';
    }

    public static function none(): self
    {
        return new self(null, null, null, null);
    }

    public static function read(RuleFields $fields): self
    {
        $citation = static fn (string $name): ?string => $fields->has($name) ? $fields->part($name)->citation() : null;

        return new self(
            $citation('parasites'),
            $fields->has('ambient') ? $fields->citedSpan('ambient') : null,
            $citation('microwave'),
            $citation('roast_again'),
        );
    }
}
