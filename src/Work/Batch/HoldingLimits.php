<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;

/** One answer to "how long have I got?": every limit that applies, the one that bites first at the top. */
final readonly class HoldingLimits
{
    /**
     * @return list<array{ rule: string, kind: string, track: string|null, deadline: Instant, since: Instant|null,
     *     latest: Instant|null, towards: Threshold|null
     * }> what lies ahead is counted; a forecast has its range
     */
    public static function of(Assessment $assessment, ?FallOutlook $fall): array
    {
        $limits = [];
        foreach ($assessment->countdowns as $countdown) {
            $limits[$countdown->kind->value.$countdown->rule] ??= [
                'rule' => $countdown->rule,
                'kind' => $countdown->kind->value,
                'track' => $countdown->track,
                'deadline' => $countdown->deadline,
                'since' => $countdown->earliestStart,
                'latest' => null,
                'towards' => $countdown->towards,
            ];
        }
        if ($fall?->hot !== null) {
            $limits[] = [
                'rule' => 'hot_limit',
                'kind' => 'forecast',
                'track' => $fall->track,
                'deadline' => $fall->hot->earliest,
                'since' => null,
                'latest' => $fall->hot->latest,
                'towards' => $assessment->rules->limits()->hot->threshold,
            ];
        }
        usort(
            $limits,
            static fn (array $one, array $other): int => $one['deadline']->epoch <=> $other['deadline']->epoch,
        );

        return $limits;
    }
}
