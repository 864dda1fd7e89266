<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

/** A stretch of a strip. */
final readonly class PlanBar
{
    private function __construct(public string $look, public float $x, public float $width, public string $label)
    {
    }

    public static function between(string $look, float $from, float $to, string $label = ''): self
    {
        return new self($look, $from, max(1.0, round($to - $from, 1)), $label);
    }
}
