<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** House limits a site has made stricter than our defaults. They decide no verdict; a looser one counts for nothing. */
final readonly class StricterLimits
{
    /** As a rule set and a record call them; each is a span, and shorter is stricter. */
    public const NAMES = [
        'prep_out_seconds',
        'come_up_non_intact_seconds',
        'come_up_intact_seconds',
        'hot_hold_check_seconds',
        'below_hot_seconds',
        'thermometer_check_seconds',
        'pit_drift_seconds',
    ];

    /** @param array<string, int> $seconds by name: only the ones that differ */
    public function __construct(public array $seconds = [])
    {
    }

    public function isNone(): bool
    {
        return $this->seconds === [];
    }

    public function of(string $name, Span $usual): Span
    {
        $own = $this->seconds[$name] ?? null;

        return $own === null || $own >= $usual->seconds ? $usual : Span::ofSeconds($own);
    }
}
