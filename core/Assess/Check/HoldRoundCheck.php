<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\UnreadGap;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Measure\DurationBounds;

/** House limit: held food is read more often than the record strictly needs. */
final readonly class HoldRoundCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house();
        foreach ($case->stagesOf(HotHold::class) as $stage) {
            $readings = $case->readingsIn($stage);
            $silence = UnreadGap::longestIn($stage->from, $stage->to, $readings);
            $length = $silence->span();
            if ($length->isLongerThan($house->hotHoldCheck)) {
                $findings->add(
                    new Finding(
                        rule: 'house.hot_hold_check',
                        verdict: null,
                        citation: $house->citation,
                        message: 'house.hot_hold_check',
                        values: [
                            'silence' => $length,
                            'from' => $silence->from,
                            'to' => $silence->to,
                            'limit' => $house->hotHoldCheck,
                        ],
                        from: $silence->from,
                        to: $silence->to,
                        elapsed: DurationBounds::ofSeconds($length->seconds, $length->seconds),
                        limit: $house->hotHoldCheck,
                        evidence: [$stage->event->id],
                        options: $stage->isOpen ? ['hot_hold.read_now'] : [],
                    ),
                );
            }
            if ($stage->isOpen) {
                $since = $readings->last()?->instant() ?? $stage->from;
                $findings->turnsAfter($since->plus($house->hotHoldCheck));
            }
        }
    }
}
