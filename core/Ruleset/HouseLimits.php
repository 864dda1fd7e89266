<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** Our own defaults, never the code's: a site may make them stricter. They decide no verdict. */
final readonly class HouseLimits
{
    public function __construct(
        public string $citation,
        public Span $prepOut,
        public Span $comeUpNonIntact,
        public Span $comeUpIntact,
        public Span $hotHoldCheck,
        public Span $belowHot,
        public Tolerance $agreement,
        public Span $agreementWithin,
        public Plausible $plausible,
        public Span $thermometerCheck,
        public Tolerance $pitDrift,
        public Span $pitDriftFor,
        public Span $lateEntry,
    ) {
    }
}
