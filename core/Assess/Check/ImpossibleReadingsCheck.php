<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Ruleset\HouseLimits;

/**
 * House limit: two readings of one track that cannot both be true, wherever they came from; a figure of seconds between
 * them would say nothing.
 */
final readonly class ImpossibleReadingsCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house();
        foreach ($case->tracks as $track => $trace) {
            $atOnce = $house->plausible->jumpNinetieths();
            $isWhole = $trace->isWhole();
            if ($isWhole && $trace->extent()->step <= $atOnce) {
                continue;
            }
            $first = $last = null;
            $level = $pairs = 0;
            foreach ($trace->temps as $index => $temp) {
                if (!$isWhole && !$trace->follows($trace->orders[$index])) {
                    $pairs += $trace->leftOutBefore($trace->orders[$index])->impossible ?? 0;
                } elseif (
                    $last !== null
                    && abs($temp->ninetieths - $level) > $atOnce
                    && $house->plausible->isImpossible($last, $temp, $trace->ats[$index] - $trace->ats[$index - 1])
                ) {
                    $first ??= $index;
                    ++$pairs;
                }
                $last = $temp;
                $level = $temp->ninetieths;
            }
            if ($first !== null) {
                $findings->add(self::finding($house, $track, $trace->at($first - 1), $trace->at($first), $pairs));
            }
        }
    }

    private static function finding(
        HouseLimits $house,
        string $track,
        TrackReading $one,
        TrackReading $other,
        int $pairs,
    ): Finding {
        return new Finding(
            rule: 'house.impossible_readings',
            verdict: null,
            citation: $house->citation,
            message: $pairs === 1 ? 'house.impossible_readings' : 'house.impossible_readings_more',
            values: [
                'temp' => $one->temp,
                'at' => $one->instant(),
                'temp_other' => $other->temp,
                'at_other' => $other->instant(),
                'more' => $pairs - 1,
            ],
            track: $track,
            from: $one->instant(),
            to: $other->instant(),
            evidence: [$one->id, $other->id],
            options: ['house.correct_reading'],
        );
    }

    public static function areImpossible(TrackReading $one, TrackReading $other, HouseLimits $house): bool
    {
        return $house->plausible->isImpossible($one->temp, $other->temp, $other->at - $one->at);
    }
}
