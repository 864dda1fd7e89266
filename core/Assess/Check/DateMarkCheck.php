<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\EventType;

/** Food kept more than a day is used by its date: seven days, the day of preparation the first, frozen days not counted. */
final readonly class DateMarkCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $rule = $case->rules->dateMark;
        $cooks = $case->stagesOf(EventType::Cook);
        if ($cooks === []) {
            return;
        }
        $cook = $cooks[\count($cooks) - 1];
        $prepared = $cook->to;
        $end = $case->timeline->endOrAsOf();
        if (!Span::between($prepared, $end)->isLongerThan($rule->after)) {
            if (!$cook->isOpen && !$case->timeline->hasEnded()) {
                $findings->turnsAfter($prepared->plus($rule->after));
            }

            return;
        }
        $zone = $case->site->zone;
        $frozen = 0;
        foreach ($case->stagesOf(EventType::Freeze) as $freeze) {
            if ($freeze->order > $cook->order) {
                $frozen += LocalDate::ofInstant($freeze->to, $zone)->daysSince(LocalDate::ofInstant($freeze->from, $zone));
            }
        }
        $dayOne = LocalDate::ofInstant($prepared, $zone);
        $useBy = $dayOne->plusDays($rule->days - 1 + $frozen);
        $isOpen = !$case->timeline->hasEnded();
        $verdict = LocalDate::ofInstant($end, $zone)->isAfter($useBy) ? Verdict::Broken : Verdict::allWell($isOpen);
        $deadline = $useBy->plusDays(1)->startIn($zone)->plus(Span::ofSeconds(-1));
        $findings->add(new Finding(
            'date_mark',
            $verdict,
            $rule->citation,
            'date_mark.'.$verdict->value,
            ['day_one' => $dayOne, 'use_by' => $useBy, 'days' => $rule->days, 'frozen' => $frozen],
            null,
            $prepared,
            $isOpen ? null : $end,
            deadline: $verdict === Verdict::Running ? $deadline : null,
            evidence: [$cook->event->id],
            options: $verdict === Verdict::Broken ? ['discard'] : [],
        ));
        if ($isOpen) {
            $findings->countdown(new Countdown('date_mark', CountdownKind::Limit, null, $prepared, $prepared, $deadline));
            $findings->turnsAfter($deadline);
        }
    }
}
