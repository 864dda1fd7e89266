<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** Our own defaults, never the code's: a site may make them stricter. They decide no verdict. */
final readonly class HouseLimits implements RulePart
{
    private function __construct(
        public string $citation,
        public Span $prepOut,
        public Span $comeUpNonIntact,
        public Span $comeUpIntact,
        public Span $hotHoldCheck,
        public Span $belowHot,
        public Tolerance $agreement,
        public Span $agreementWithin,
        public PlausibleReadings $plausible,
        public Span $thermometerCheck,
        public Tolerance $pitDrift,
        public Span $pitDriftFor,
        public Span $lateEntry,
        public Span $longAfter,
    ) {
    }

    /** With the stricter limits of a site. */
    public function stricter(StricterLimits $own): self
    {
        return new self(
            citation: $this->citation,
            prepOut: $own->of('prep_out_seconds', $this->prepOut),
            comeUpNonIntact: $own->of('come_up_non_intact_seconds', $this->comeUpNonIntact),
            comeUpIntact: $own->of('come_up_intact_seconds', $this->comeUpIntact),
            hotHoldCheck: $own->of('hot_hold_check_seconds', $this->hotHoldCheck),
            belowHot: $own->of('below_hot_seconds', $this->belowHot),
            agreement: $this->agreement,
            agreementWithin: $this->agreementWithin,
            plausible: $this->plausible,
            thermometerCheck: $own->of('thermometer_check_seconds', $this->thermometerCheck),
            pitDrift: $this->pitDrift,
            pitDriftFor: $own->of('pit_drift_seconds', $this->pitDriftFor),
            lateEntry: $this->lateEntry,
            longAfter: $this->longAfter,
        );
    }

    /** @return array<string, Span> by name, the limits a site may make stricter */
    public function adjustable(): array
    {
        return [
            'prep_out_seconds' => $this->prepOut,
            'come_up_non_intact_seconds' => $this->comeUpNonIntact,
            'come_up_intact_seconds' => $this->comeUpIntact,
            'hot_hold_check_seconds' => $this->hotHoldCheck,
            'below_hot_seconds' => $this->belowHot,
            'thermometer_check_seconds' => $this->thermometerCheck,
            'pit_drift_seconds' => $this->pitDriftFor,
        ];
    }

    public static function key(): string
    {
        return 'house';
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            citation: $fields->citation(),
            prepOut: $fields->span('prep_out_seconds'),
            comeUpNonIntact: $fields->span('come_up_non_intact_seconds'),
            comeUpIntact: $fields->span('come_up_intact_seconds'),
            hotHoldCheck: $fields->span('hot_hold_check_seconds'),
            belowHot: $fields->span('below_hot_seconds'),
            agreement: $fields->part('agreement')->tolerance($fields->citation()),
            agreementWithin: $fields->span('agreement_seconds'),
            plausible: PlausibleReadings::read($fields->part('plausible')),
            thermometerCheck: $fields->span('thermometer_check_seconds'),
            pitDrift: $fields->part('pit_drift')->tolerance($fields->citation()),
            pitDriftFor: $fields->span('pit_drift_seconds'),
            lateEntry: $fields->span('late_entry_seconds'),
            longAfter: $fields->span('long_after_seconds'),
        );
    }
}
