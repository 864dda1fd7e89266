<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** How a chance is said: as so many in ten. */
final readonly class Chance
{
    private const RARE = 0.1;
    private const OFTEN = 0.9;

    /**
     * Of something that goes wrong: rather one more.
     *
     * @return int 0 (fewer than one in ten) to 10 (more than nine)
     */
    public static function tenthsOfBad(float $chance): int
    {
        return match (true) {
            $chance < self::RARE => 0,
            $chance > self::OFTEN => 10,
            default => (int) ceil(10 * $chance - 1e-9),
        };
    }
}
