<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Opened;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\DateMarkRules;

/**
 * Food kept more than a day is used by its date: seven days, the day of preparation or opening the first, whole frozen
 * days not counted.
 */
final readonly class DateMarkCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        [$anchor, $evidence] = self::anchor($case);
        if ($anchor === null) {
            return;
        }
        $rule = $case->rule(DateMarkRules::class);
        $end = $case->timeline->endOrAsOf();
        $isOpen = !$case->timeline->hasEnded();
        if (!Span::between($anchor, $end)->isLongerThan($rule->after)) {
            if ($isOpen && $anchor->epoch < $case->asOf->epoch) {
                $findings->turnsAfter($anchor->plus($rule->after));
            }

            return;
        }
        $zone = $case->site->zone;
        $frozen = self::frozenDays($case, $findings, $anchor, $end, $rule);
        $dayOne = LocalDate::ofInstant($anchor, $zone);
        $useBy = $dayOne->plusDays($rule->days - 1 + $frozen);
        $verdict = LocalDate::ofInstant($end, $zone)->isAfter($useBy) ? Verdict::Broken : Verdict::allWell($isOpen);
        $deadline = $useBy->plusDays(1)->startIn($zone)->plus(Span::ofSeconds(-1));
        $findings->add(
            new Finding(
                rule: 'date_mark',
                verdict: $verdict,
                citation: $verdict === Verdict::Broken ? $rule->pastCitation : $rule->citation,
                message: 'date_mark.'.$verdict->value,
                values: ['day_one' => $dayOne, 'use_by' => $useBy, 'days' => $rule->days, 'frozen' => $frozen],
                from: $anchor,
                to: $isOpen ? null : $end,
                deadline: $verdict === Verdict::Running ? $deadline : null,
                evidence: [$evidence],
                options: $verdict === Verdict::Broken ? ['discard'] : [],
            ),
        );
        if ($isOpen) {
            $findings->countdown(new Countdown('date_mark', CountdownKind::Limit, null, $anchor, $anchor, $deadline));
            $findings->turnsAfter($deadline);
        }
    }

    /**
     * @return array{Instant|null, string} when it was made ready to eat, or a bought package opened, and the event that
     *     shows it
     */
    private static function anchor(CaseFile $case): array
    {
        $cooks = $case->stagesOf(Cook::class);
        $cook = $cooks[\count($cooks) - 1] ?? null;
        if ($case->product->form === Form::CommercialReadyToEat) {
            foreach ($case->timeline->happenings as $event) {
                if ($event->detail instanceof Opened && ($cook === null || $cook->to->isAfter($event->at))) {
                    return [$event->at, $event->id];
                }
            }
        }

        return [$cook?->to, $cook->event->id ?? ''];
    }

    /** Whole days in the freezer since: each stay counted by itself, from its start. */
    private static function frozenDays(
        CaseFile $case,
        Findings $findings,
        Instant $anchor,
        Instant $end,
        DateMarkRules $rule,
    ): int {
        $days = 0;
        foreach ($case->stagesOf(Freeze::class) as $freeze) {
            if ($freeze->from->epoch < $anchor->epoch) {
                continue;
            }
            $to = min($freeze->to->epoch, $end->epoch);
            $whole = intdiv(max(0, $to - $freeze->from->epoch), $rule->frozenDay->seconds);
            $days += $whole;
            if ($freeze->isOpen) {
                // One more frozen day moves the date, by time alone.
                $findings->turnsAfter(
                    $freeze->from->plus(Span::ofSeconds(($whole + 1) * $rule->frozenDay->seconds - 1)),
                );
            }
        }

        return $days;
    }
}
