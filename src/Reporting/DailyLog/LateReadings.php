<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\TrackReading;

/** How many readings were written down long after they were taken, by the house limit. */
final readonly class LateReadings
{
    /** @param array<TrackReading> $readings of this assessment */
    public static function among(array $readings, Assessment $assessment): int
    {
        $recorded = [];
        foreach ($assessment->record->events as $event) {
            $recorded[$event->id] = $event->recordedAt->epoch ?? $event->at->epoch;
        }
        $after = $assessment->rules->house()->longAfter->seconds;

        return \count(
            array_filter(
                $readings,
                static fn (TrackReading $reading): bool => $after < $recorded[$reading->id] - $reading->at,
            ),
        );
    }
}
