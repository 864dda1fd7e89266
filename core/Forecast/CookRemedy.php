<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Temperature;

/** The forecast of a late cook after a remedy taken now. */
final readonly class CookRemedy
{
    /**
     * @param Temperature|null $set of the pit, where it is turned up
     * @param float $late 0 to 1: the chance that it is late all the same
     */
    public function __construct(public CookRemedyKind $kind, public ?Temperature $set, public float $late)
    {
    }

    /** 0 to 10: how many times in ten it is late all the same. */
    public function tenths(): int
    {
        return Chance::tenthsOfBad($this->late);
    }
}
