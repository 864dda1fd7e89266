<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/** Whether a forecast misses what it is wanted by. */
enum Lateness: string
{
    /** Even the earliest it may be is too late. */
    case Sure = 'sure';
    /** The latest it may be is too late. */
    case Maybe = 'maybe';

    /**
     * @return self|null null where it is likely to be in time; where it is not likely to come at all it is sure to be
     *     late
     */
    public static function of(?Crossing $crossing, Instant $deadline): ?self
    {
        return match (true) {
            $crossing === null, $crossing->earliest->isAfter($deadline) => self::Sure,
            $crossing->latest === null, $crossing->latest->isAfter($deadline) => self::Maybe,
            default => null,
        };
    }
}
