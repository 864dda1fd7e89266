<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** Whether a forecast is likely to miss its deadline. */
enum Lateness: string
{
    case Sure = 'sure';
    case Maybe = 'maybe';

    private const SURE = 0.8;
    private const MAYBE = 0.3;

    /**
     * @param float $chance 0 to 1, that it comes too late
     *
     * @return self|null null where it is likely to be in time
     */
    public static function of(float $chance): ?self
    {
        return match (true) {
            $chance >= self::SURE => self::Sure,
            $chance >= self::MAYBE => self::Maybe,
            default => null,
        };
    }
}
