<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\EventType;

/** House limit: how long raw meat may be out of refrigeration for prep before a caution. */
final readonly class PrepOutCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house;
        foreach ($case->stagesOf(EventType::Prep) as $stage) {
            foreach ($case->stagesOf(EventType::Cook) as $cook) {
                if ($cook->order < $stage->order) {
                    // What is prepared after a cook is off the heat, and judged as that.
                    continue 2;
                }
            }
            $out = Span::between($stage->from, $stage->to);
            $deadline = $stage->from->plus($house->prepOut);
            if ($out->isLongerThan($house->prepOut)) {
                $findings->add(new Finding(
                    'house.prep_out',
                    null,
                    $house->citation,
                    $stage->isOpen ? 'house.prep_out_open' : 'house.prep_out',
                    ['out' => $out, 'limit' => $house->prepOut, 'start' => $stage->from],
                    null,
                    $stage->from,
                    $stage->isOpen ? null : $stage->to,
                    Bounds::ofSeconds($out->seconds, $out->seconds),
                    $house->prepOut,
                    evidence: [$stage->event->id],
                    options: $stage->isOpen ? ['house.back_to_cold'] : [],
                ));
            }
            if ($stage->isOpen) {
                $findings->countdown(new Countdown('house.prep_out', CountdownKind::House, null, $stage->from, $stage->from, $deadline));
                $findings->turnsAfter($deadline);
            }
        }
    }
}
