<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** How much nitrite usually goes into meat of one kind at the most. */
final readonly class CuringLimit
{
    /** @param float $ppm mg of sodium nitrite for each kg of meat */
    public function __construct(public CuredMeat $of, public float $ppm, public string $citation)
    {
    }

    public function isAbove(float $ppm): bool
    {
        return $ppm > $this->ppm;
    }
}
