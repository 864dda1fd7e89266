<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Record\Detail\TimeControl;
use Verjuicer\Core\Record\EventType;

/** Time as a public health control: a good start, no longer than the plan, and never back. */
final readonly class TimeControlCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(EventType::TimeControl) as $stage) {
            $detail = $stage->event->detail;
            \assert($detail instanceof TimeControl);
            $count = \count($findings->all());
            self::judgeStart($case, $findings, $stage, $detail->plan);
            self::judgeLength($case, $findings, $stage, $detail->plan);
            self::judgeReturn($case, $findings, $stage, $detail->plan);
            if ($detail->plan === TimePlan::Cold6h) {
                self::judgeCeiling($case, $findings, $stage, $detail->plan);
            }
            if (\count($findings->all()) === $count) {
                $findings->add(self::finding($case, $stage, $detail->plan, Verdict::allWell($stage->isOpen), $stage->isOpen ? 'running' : 'met'));
            }
        }
    }

    private static function judgeStart(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $rules = $case->rules->timeControl;
        $until = $stage->from->plus($rules->startReadingAfter);
        $start = self::startReading($case, $stage);
        if ($start === null) {
            $isRunning = $stage->isOpen && !$case->asOf->isAfter($until);
            $findings->add(self::finding($case, $stage, $plan, $isRunning ? Verdict::Running : Verdict::NotShown, $isRunning ? 'start_not_read_yet' : 'start_not_read', ['until' => $until], $isRunning ? ['time_control.read_start'] : ['discard']));
            if ($isRunning) {
                $findings->countdown(new Countdown('time_control', CountdownKind::Check, null, $stage->from, $stage->from, $until));
                $findings->turnsAfter($until);
            }

            return;
        }
        $isHot = $plan === TimePlan::Hot4h;
        $limit = $isHot ? $case->rules->hot->threshold : $case->rules->cold->threshold;
        if ($isHot ? $start->temp->isBelow($limit) : $start->temp->isAbove($limit)) {
            $findings->add(self::finding($case, $stage, $plan, Verdict::Broken, $isHot ? 'start_below' : 'start_above', ['temp' => $start->temp, 'limit' => $limit, 'at' => Instant::ofEpoch($start->at)], ['discard'], [$start->id]));
        }
    }

    /** The last reading of any track from some time before the start to some time after it, both ends included. */
    private static function startReading(CaseFile $case, Stage $stage): ?Reading
    {
        $rules = $case->rules->timeControl;
        $from = $stage->from->epoch - $rules->startReadingBefore->seconds;
        $to = $stage->from->epoch + $rules->startReadingAfter->seconds;
        $candidate = $case->readings->lastUntil($to);

        return $candidate !== null && $candidate->at >= $from ? $candidate : null;
    }

    private static function judgeLength(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $limit = $case->rules->timeControl->limitOf($plan)->span;
        $deadline = $stage->from->plus($limit);
        if (Span::between($stage->from, $stage->to)->isLongerThan($limit)) {
            $findings->add(self::finding($case, $stage, $plan, Verdict::Broken, 'too_long', [], ['discard']));
        }
        if ($stage->isOpen) {
            $findings->countdown(new Countdown('time_control', CountdownKind::Limit, null, $stage->from, $stage->from, $deadline));
            $findings->turnsAfter($deadline);
        }
    }

    private static function judgeReturn(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $next = $case->timeline->stageAfter($stage);
        if ($next !== null && !$next->type()->isEnd()) {
            $findings->add(self::finding($case, $stage, $plan, Verdict::Broken, 'returned', ['stage' => $next->type()->value], ['discard'], [$stage->event->id, $next->event->id]));
        }
    }

    private static function judgeCeiling(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $ceiling = $case->rules->timeControlColdCeiling;
        $unread = $case->rules->timeControl->unreadAtMost->span;
        $readings = $case->readingsIn($stage);
        foreach ($readings->readings as $reading) {
            if ($reading->temp->isAbove($ceiling->threshold)) {
                $findings->add(self::finding($case, $stage, $plan, Verdict::Broken, 'above_ceiling', ['temp' => $reading->temp, 'limit' => $ceiling->threshold, 'at' => Instant::ofEpoch($reading->at)], ['discard'], [$reading->id]));
                break;
            }
        }
        if (!$readings->isEmpty()) {
            return;
        }
        if (Span::between($stage->from, $stage->to)->isLongerThan($unread)) {
            $findings->add(self::finding($case, $stage, $plan, Verdict::NotShown, 'unread', ['limit' => $ceiling->threshold, 'unread' => $unread], $stage->isOpen ? ['time_control.read_now', 'discard'] : ['discard']));
        } elseif ($stage->isOpen) {
            $due = $stage->from->plus($unread);
            $findings->countdown(new Countdown('time_control', CountdownKind::Check, null, $stage->from, $stage->from, $due));
            $findings->turnsAfter($due);
        }
    }

    /**
     * @param array<string, Temperature|Threshold|Instant|Span|string> $values
     * @param list<string>                                             $options
     * @param list<string>                                             $evidence
     */
    private static function finding(CaseFile $case, Stage $stage, TimePlan $plan, Verdict $verdict, string $message, array $values = [], array $options = [], array $evidence = []): Finding
    {
        $limit = $case->rules->timeControl->limitOf($plan);
        $deadline = $stage->from->plus($limit->span);
        $held = Span::between($stage->from, $stage->to);

        return new Finding(
            'time_control',
            $verdict,
            $limit->citation,
            'time_control.'.$message,
            $values + ['within' => $limit->span, 'held' => $held, 'start' => $stage->from, 'deadline' => $deadline],
            null,
            $stage->from,
            $stage->isOpen ? null : $stage->to,
            Bounds::ofSeconds($held->seconds, $held->seconds),
            $limit->span,
            $verdict === Verdict::Running ? $deadline : null,
            $evidence === [] ? [$stage->event->id] : $evidence,
            $options,
        );
    }
}
