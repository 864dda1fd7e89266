<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** How a record is judged: how far apart readings may lie and still show what was between them. */
final readonly class Monitoring
{
    public function __construct(
        public CitedSpan $hotHoldGap,
        public CitedSpan $restGap,
        public CitedSpan $cookingRunGap,
        public CitedSpan $settledReading,
    ) {
    }
}
