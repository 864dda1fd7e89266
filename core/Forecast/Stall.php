<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/**
 * The plateau of a long cook: evaporation cools the meat as fast as the pit heats it. Nothing is wrong. Recognised
 * where the readings of a track rise by less than a few degrees an hour for three quarters of an hour or more, at a
 * temperature at which meat stalls.
 */
final readonly class Stall
{
    public const COOLEST = 60.0; // °C; about 140 °F
    public const HOTTEST = 86.0; // °C; about 187 °F
    public const SLOW = 4.5; // °C an hour; a pit that heats freely raises its meat by 8 to 25
    private const LEAST_SECONDS = 2700;

    private function __construct(public Instant $from, public Instant $to, public bool $isOpen)
    {
    }

    /** @param list<Point> $points of one track on the heat, in order of time */
    public static function in(array $points): ?self
    {
        $stall = null;
        $from = 0;
        for ($to = 1; $to < \count($points); ++$to) {
            if (
                $points[$to]->celsius < self::COOLEST
                || $points[$to]->celsius > self::HOTTEST
                || self::rate($points[$to - 1], $points[$to]) > 2 * self::SLOW - 1
            ) {
                $from = $to;

                continue;
            }
            // The longest stretch up to here that is slow as a whole.
            while (
                $from < $to
                && ($points[$from]->celsius < self::COOLEST || self::rate($points[$from], $points[$to]) >= self::SLOW)
            ) {
                ++$from;
            }
            if ($points[$to]->at - $points[$from]->at >= self::LEAST_SECONDS) {
                $start =
                    $stall !== null && $points[$from]->at <= $stall->to->epoch
                        ? $stall->from
                        : Instant::ofEpoch($points[$from]->at);
                $stall = new self($start, Instant::ofEpoch($points[$to]->at), $to === \count($points) - 1);
            }
        }

        return $stall;
    }

    private static function rate(Point $one, Point $other): float
    {
        return $other->at === $one->at ? 0.0 : (($other->celsius - $one->celsius) * 3600) / ($other->at - $one->at);
    }
}
