<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** Who needs a date mark, and how many days it gives, the day of preparation being day 1; a day frozen is so long. */
final readonly class DateMarkRules implements RulePart
{
    private function __construct(
        public string $citation,
        public string $pastCitation,
        public Span $after,
        public int $days,
        public Span $frozenDay,
    ) {
    }

    public static function key(): string
    {
        return 'date_mark';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            citation: $fields->citation(),
            pastCitation: $fields->text('past_citation'),
            after: $fields->span('after_seconds'),
            days: $fields->whole('days'),
            frozenDay: $fields->span('frozen_day_seconds'),
        );
    }
}
