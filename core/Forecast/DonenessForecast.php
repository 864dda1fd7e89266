<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/**
 * When a cook is likely to reach a temperature, from the batch's own readings: how fast it climbs now, against how far
 * the pit is above it, and how much that pace has been seen to change from there on, if it stays open or stays wrapped
 * as it is. Wide before and in the stall, because the stall is.
 */
final readonly class DonenessForecast
{
    /**
     * From each temperature on: the least and the greatest share of today's pace that the rest of a cook has kept, open
     * or wrapped. Found by simulated slabs, cylinders and spheres that evaporate, dry and are wrapped or not; see
     * docs/forecast.md.
     */
    private const OPEN = [
        [-20, 0.33, 2.1],
        [30, 0.22, 1.1],
        [45, 0.2, 1.0],
        [55, 0.2, 1.05],
        [62, 0.34, 1.25],
        [70, 0.56, 1.2],
        [80, 0.68, 1.12],
    ];
    private const WRAPPED = [
        [-20, 0.38, 2.1],
        [30, 0.4, 1.25],
        [55, 0.6, 2.5],
        [62, 0.88, 6.0],
        [70, 0.78, 5.0],
        [80, 0.66, 1.55],
    ];

    private const RECENT_SECONDS = 4500;
    private const LEAST_SECONDS = 1800;
    private const LEAST_RATE = 0.6; // °C an hour: slower than any stall lasts

    /**
     * @param list<Point> $points of one track since it went on the heat, in order of time
     * @param float $target °C
     * @param float $surroundings °C of the pit
     *
     * @return Window|null null where too little was read, it does not climb, or the pit is not hotter than the target
     */
    public static function of(array $points, float $target, float $surroundings, bool $isWrapped): ?Window
    {
        $last = $points[\count($points) - 1] ?? null;
        if ($last === null || $last->celsius >= $target) {
            return null;
        }
        $recent = array_values(
            array_filter($points, static fn (Point $point): bool => $last->at - $point->at <= self::RECENT_SECONDS),
        );
        if (\count($recent) < 3) {
            $recent = \array_slice($points, -3);
        }
        $line = $last->at - $recent[0]->at >= self::LEAST_SECONDS ? Line::through($recent) : null;
        if ($line === null || $surroundings - $target < 5.0 || $line->slope + $line->slopeError < self::LEAST_RATE) {
            return null;
        }
        [$slow, $fast] = self::shares($last->celsius, $isWrapped);
        $least = max(self::LEAST_RATE, $line->slope - $line->slopeError);
        $greatest = max($least, $line->slope + $line->slopeError);
        $middle = ($recent[0]->celsius + $last->celsius) / 2;

        return new Window(
            self::arrival($last, $target, $surroundings, ($greatest / ($surroundings - $middle)) * $fast),
            self::arrival($last, $target, $surroundings, ($least / ($surroundings - $middle)) * $slow),
        );
    }

    private static function arrival(Point $last, float $target, float $surroundings, float $pace): Instant
    {
        $halfway = ($last->celsius + $target) / 2;

        return Instant::ofEpoch(
            $last->at + (int) round((3600 * ($target - $last->celsius)) / ($pace * ($surroundings - $halfway))),
        );
    }

    /** @return array{float, float} */
    private static function shares(float $celsius, bool $isWrapped): array
    {
        $shares = [0.17, 6.5];
        foreach ($isWrapped ? self::WRAPPED : self::OPEN as [$from, $slow, $fast]) {
            if ($celsius >= $from) {
                $shares = [$slow, $fast];
            }
        }

        return $shares;
    }
}
