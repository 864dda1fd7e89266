<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Forecast\FallOutlook;

/** One answer to "how long have I got?": every limit that applies, the one that bites first at the top. */
final readonly class HoldingLimits
{
    /** @return list<HoldingLimit> what lies ahead is counted; a forecast has its range */
    public static function of(Assessment $assessment, ?FallOutlook $fall): array
    {
        $limits = [];
        $isBroken = array_filter(
            OpenActions::of($assessment),
            static fn (string $rule): bool => ($assessment->rulesJudged[$rule] ?? null) === Verdict::Broken,
        ) !== [];
        foreach ($assessment->countdowns as $countdown) {
            if ($countdown->rule === 'date_mark' && $isBroken) {
                continue; // until a breach is settled no date says "use by"
            }
            $limits[$countdown->kind->value.$countdown->rule] ??= new HoldingLimit(
                $countdown->rule,
                $countdown->kind->value,
                $countdown->track,
                $countdown->deadline,
                $countdown->earliestStart,
                null,
                $countdown->towards,
            );
        }
        if ($fall?->hot !== null) {
            $limits[] = new HoldingLimit(
                'hot_limit',
                'forecast',
                $fall->track,
                $fall->hot->earliest,
                null,
                $fall->hot->latest,
                $assessment->rules->limits()->hot->threshold,
            );
        }
        usort(
            $limits,
            static fn (HoldingLimit $one, HoldingLimit $other): int => $one->deadline->epoch
                <=> $other->deadline->epoch,
        );

        return $limits;
    }
}
