<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Measure\Instant;

/** One reading in the picture of a batch. */
final readonly class PictureMark
{
    public function __construct(public float $x, public float $y, public TrackReading $reading, public bool $isSuspect)
    {
    }

    public function at(): Instant
    {
        return $this->reading->instant();
    }

    /**
     * As many as can be told apart: of those that fall on one stretch of the picture the lowest and the highest, and
     * the first that is in doubt.
     *
     * @param list<self> $marks in order of time
     * @param int $most stretches
     *
     * @return list<self>
     */
    public static function thinned(array $marks, int $most, float $width): array
    {
        if (\count($marks) <= 2 * $most) {
            return $marks;
        }
        $kept = [];
        foreach ($marks as $place => $mark) {
            $stretch = (int) floor($mark->x * $most / $width);
            $low = $kept[$stretch]['low'] ?? $place;
            $high = $kept[$stretch]['high'] ?? $place;
            $kept[$stretch]['low'] = $mark->y > $marks[$low]->y ? $place : $low;
            $kept[$stretch]['high'] = $mark->y < $marks[$high]->y ? $place : $high;
            if ($mark->isSuspect) {
                $kept[$stretch]['suspect'] ??= $place;
            }
        }
        $places = array_merge(...array_map(array_values(...), array_values($kept)));
        $last = \count($marks) - 1;
        $places = array_unique([0, ...$places, $last]);
        sort($places);

        return array_map(static fn (int $place): self => $marks[$place], $places);
    }
}
