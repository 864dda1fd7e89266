<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** The forecast of a cooling after a remedy taken now. */
final readonly class Remedy
{
    /** @param float $late 0 to 1: the chance that a gate is passed too late all the same */
    public function __construct(public RemedyKind $kind, public float $late)
    {
    }

    /** 0 to 10: how many times in ten it is late all the same. */
    public function tenths(): int
    {
        return Chance::tenthsOfBad($this->late);
    }
}
