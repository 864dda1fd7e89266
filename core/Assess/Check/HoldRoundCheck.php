<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Silence;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\EventType;

/** House limit: held food is read more often than the record strictly needs. */
final readonly class HoldRoundCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house;
        foreach ($case->stagesOf(EventType::HotHold) as $stage) {
            $readings = $case->readingsIn($stage);
            $silence = Silence::longestIn($stage->from, $stage->to, $readings);
            if ($silence->span()->isLongerThan($house->hotHoldCheck)) {
                $findings->add(new Finding(
                    'house.hot_hold_check',
                    null,
                    $house->citation,
                    'house.hot_hold_check',
                    ['silence' => $silence->span(), 'from' => $silence->from, 'to' => $silence->to, 'limit' => $house->hotHoldCheck],
                    null,
                    $silence->from,
                    $silence->to,
                    Bounds::ofSeconds($silence->span()->seconds, $silence->span()->seconds),
                    $house->hotHoldCheck,
                    evidence: [$stage->event->id],
                    options: $stage->isOpen ? ['hot_hold.read_now'] : [],
                ));
            }
            if ($stage->isOpen) {
                $findings->turnsAfter(Instant::ofEpoch($readings->last()->at ?? $stage->from->epoch)->plus($house->hotHoldCheck));
            }
        }
    }
}
