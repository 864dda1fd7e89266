<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Ruleset\CookingRules;

/**
 * Spots of the last cook that were read and left: nothing is reached there, and another spot of the piece was read long
 * after.
 */
final readonly class AbandonedSpots
{
    /** @return list<TrackReading> the last reading of each */
    public static function of(Assessment $assessment): array
    {
        $cook = $assessment->cooks[\count($assessment->cooks) - 1] ?? null;
        if ($cook === null) {
            return [];
        }
        $gap = $assessment->rules->get(CookingRules::class)->runGap->seconds;
        $unreached = [];
        foreach ($cook->findings as $finding) {
            if ($finding->track !== null && $finding->verdict !== Verdict::Met) {
                $unreached[$finding->track] = true;
            }
        }
        $stretch = $cook->window->stretch;
        $last = $latest = [];
        foreach ($assessment->timeline->readings->all() as $reading) {
            if ($reading->order >= $stretch->order && $reading->order < $stretch->endOrder) {
                $last[$reading->track] = $reading;
                $latest[$reading->piece] = $reading;
            }
        }

        return array_values(
            array_filter(
                array_intersect_key($last, $unreached),
                static fn (TrackReading $reading): bool => $latest[$reading->piece]->at - $reading->at > $gap,
            ),
        );
    }
}
