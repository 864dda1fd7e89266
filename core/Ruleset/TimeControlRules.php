<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Span;

/** Time as a public health control: how long each plan allows, and what its start must show. */
final readonly class TimeControlRules
{
    public function __construct(
        private CitedSpan $hot4h,
        private CitedSpan $cold4h,
        private CitedSpan $cold6h,
        public string $citation,
        public CitedSpan $unreadAtMost,
        public Span $startReadingBefore,
        public Span $startReadingAfter,
    ) {
    }

    public function limitOf(TimePlan $plan): CitedSpan
    {
        return match ($plan) {
            TimePlan::Hot4h => $this->hot4h,
            TimePlan::Cold4h => $this->cold4h,
            TimePlan::Cold6h => $this->cold6h,
        };
    }
}
