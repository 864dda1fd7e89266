<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/**
 * The course of readings without their crowd: of each track in each stage all where they are few, else the first of
 * every so many minutes, and the last. An abridged record gives the same as the whole one.
 */
final readonly class Outline
{
    public const FEW = 100;
    private const SHORTEST_S = 60;

    /**
     * @param int $few as many all stand, and of more at least half as many
     *
     * @return list<TrackReading> in order
     */
    public static function of(Timeline $timeline, int $few = self::FEW): array
    {
        $counts = $first = $last = [];
        $readings = $timeline->readings->all();
        $keys = [];
        $stage = -1;
        foreach ($readings as $index => $reading) {
            while (($timeline->stages[$stage + 1]->order ?? \PHP_INT_MAX) < $reading->order) {
                ++$stage;
            }
            $key = $keys[$index] = $stage.' '.$reading->track;
            $counts[$key] = ($counts[$key] ?? 0) + 1 + ($reading->leftOut->count ?? 0);
            $first[$key] ??= $reading->at;
            $last[$key] = $index;
        }
        $slots = $seen = [];
        foreach ($counts as $key => $count) {
            $slots[$key] = self::slot($count, $readings[$last[$key]]->at - $first[$key], $few);
        }
        if (max([0, ...array_values($slots)]) === 0) {
            return $readings;
        }
        $outline = [];
        foreach ($readings as $index => $reading) {
            $key = $keys[$index];
            $slot = $slots[$key] === 0 ? $index : intdiv($reading->at, $slots[$key]);
            if (($seen[$key] ?? -1) !== $slot || $index === $last[$key]) {
                $outline[] = $reading;
            }
            $seen[$key] = $slot;
        }

        return $outline;
    }

    /**
     * How long a part is of which only the first reading stands for all.
     *
     * @param int $count of readings
     * @param int $span seconds from the first to the last of them
     *
     * @return int seconds; 0 where all of them stand
     */
    public static function slot(int $count, int $span, int $few = self::FEW): int
    {
        if ($count <= $few) {
            return 0;
        }
        $slot = self::SHORTEST_S;
        while ($span >= $few * $slot) {
            $slot *= 2;
        }

        return $slot;
    }
}
