<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Span;

/** Time as a public health control: how long each plan allows, and the conditions at its start. */
final readonly class TimeControlRules implements RulePart
{
    /** @param array<string, CitedSpan> $plans by the value of the plan, one for each */
    private function __construct(
        private array $plans,
        public CitedThreshold $coldCeiling,
        public CitedSpan $unreadAtMost,
        public Span $startReadingBefore,
        public Span $startReadingAfter,
    ) {
    }

    public static function key(): string
    {
        return 'time_control';
    }

    public static function read(RuleFields $fields): self
    {
        $plans = [];
        foreach (TimePlan::cases() as $plan) {
            $plans[$plan->value] = $fields->part('plans')->citedSpan($plan->value);
        }
        $start = $fields->part('start_reading');
        $start->citation();

        return new self(
            $plans,
            coldCeiling: $fields->citedThreshold('cold_ceiling'),
            unreadAtMost: $fields->citedSpan('unread_at_most'),
            startReadingBefore: $start->span('seconds_before'),
            startReadingAfter: $start->span('seconds_after'),
        );
    }

    public function limitOf(TimePlan $plan): CitedSpan
    {
        return $this->plans[$plan->value];
    }
}
