<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\TimeControl;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\TimeControlRules;

/** Time as a public health control: a good start, no longer than the plan, and never back. */
final readonly class TimeControlCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(TimeControl::class) as $stage) {
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
                $message = $stage->isOpen ? 'running' : 'met';
                $findings->add(self::finding($case, $stage, $detail->plan, Verdict::allWell($stage->isOpen), $message));
            }
        }
    }

    private static function judgeStart(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $until = $stage->from->plus($case->rule(TimeControlRules::class)->startReadingAfter);
        $start = self::startReading($case, $stage);
        if ($start === null) {
            $isRunning = $stage->isOpen && !$case->asOf->isAfter($until);
            $findings->add(
                self::finding(
                    $case,
                    $stage,
                    $plan,
                    $isRunning ? Verdict::Running : Verdict::NotShown,
                    $isRunning ? 'start_not_read_yet' : 'start_not_read',
                    ['until' => $until],
                    $isRunning ? ['time_control.read_start'] : ['discard'],
                ),
            );
            if ($isRunning) {
                $findings->countdown(
                    new Countdown('time_control', CountdownKind::Check, null, $stage->from, $stage->from, $until),
                );
                $findings->turnsAfter($until);
            }

            return;
        }
        $isHot = $plan === TimePlan::Hot4h;
        $limit = $isHot ? $case->limits->hot->threshold : $case->limits->cold->threshold;
        if ($isHot ? $start->temp->isBelow($limit) : $start->temp->isAbove($limit)) {
            $values = ['temp' => $start->temp, 'limit' => $limit, 'at' => $start->instant()];
            $message = $isHot ? 'start_below' : 'start_above';
            $findings->add(
                self::finding($case, $stage, $plan, Verdict::Broken, $message, $values, ['discard'], [$start->id]),
            );
        }
    }

    /** The last reading of any track from some time before the start to some time after it, both ends included. */
    private static function startReading(CaseFile $case, Stage $stage): ?TrackReading
    {
        $rules = $case->rule(TimeControlRules::class);
        $from = $stage->from->epoch - $rules->startReadingBefore->seconds;
        $to = $stage->from->epoch + $rules->startReadingAfter->seconds;
        $candidate = $case->readings->lastUntil($to);

        return $candidate !== null && $candidate->at >= $from ? $candidate : null;
    }

    private static function judgeLength(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $limit = $case->rule(TimeControlRules::class)->limitOf($plan)->span;
        $deadline = $stage->from->plus($limit);
        if (Span::between($stage->from, $stage->to)->isLongerThan($limit)) {
            $findings->add(self::finding($case, $stage, $plan, Verdict::Broken, 'too_long', [], ['discard']));
        }
        if ($stage->isOpen) {
            $findings->countdown(
                new Countdown('time_control', CountdownKind::Limit, null, $stage->from, $stage->from, $deadline),
            );
            $findings->turnsAfter($deadline);
        }
    }

    private static function judgeReturn(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $next = $case->timeline->stageAfter($stage);
        if ($next !== null && !$next->isEnd()) {
            $evidence = [$stage->event->id, $next->event->id];
            $values = ['stage' => $next->name()];
            $findings->add(
                self::finding($case, $stage, $plan, Verdict::Broken, 'returned', $values, ['discard'], $evidence),
            );
        }
    }

    private static function judgeCeiling(CaseFile $case, Findings $findings, Stage $stage, TimePlan $plan): void
    {
        $rules = $case->rule(TimeControlRules::class);
        $ceiling = $rules->coldCeiling->threshold;
        $unread = $rules->unreadAtMost->span;
        $readings = $case->readingsIn($stage);
        $above = $readings->firstAbove($ceiling);
        if ($above !== null) {
            $values = ['temp' => $above->temp, 'limit' => $ceiling, 'at' => $above->instant()];
            $findings->add(
                self::finding(
                    $case,
                    $stage,
                    $plan,
                    Verdict::Broken,
                    'above_ceiling',
                    $values,
                    ['discard'],
                    [$above->id],
                ),
            );
        }
        if (!$readings->isEmpty()) {
            return;
        }
        if (Span::between($stage->from, $stage->to)->isLongerThan($unread)) {
            $values = ['limit' => $ceiling, 'unread' => $unread];
            $findings->add(self::finding($case, $stage, $plan, Verdict::NotShown, 'unread', $values, ['discard']));
        } elseif ($stage->isOpen) {
            $due = $stage->from->plus($unread);
            $findings->countdown(
                new Countdown('time_control', CountdownKind::Check, null, $stage->from, $stage->from, $due, $ceiling),
            );
            $findings->turnsAfter($due);
        }
    }

    /**
     * @param array<string, Temperature|Threshold|Instant|Span|string> $values
     * @param list<string> $options
     * @param list<string> $evidence
     */
    private static function finding(
        CaseFile $case,
        Stage $stage,
        TimePlan $plan,
        Verdict $verdict,
        string $message,
        array $values = [],
        array $options = [],
        array $evidence = [],
    ): Finding {
        $limit = $case->rule(TimeControlRules::class)->limitOf($plan);
        $deadline = $stage->from->plus($limit->span);
        $held = Span::between($stage->from, $stage->to);
        $values += ['within' => $limit->span, 'held' => $held, 'start' => $stage->from, 'deadline' => $deadline];

        return new Finding(
            rule: 'time_control',
            verdict: $verdict,
            citation: $limit->citation,
            message: 'time_control.'.$message,
            values: $values,
            from: $stage->from,
            to: $stage->isOpen ? null : $stage->to,
            elapsed: DurationBounds::ofSeconds($held->seconds, $held->seconds),
            limit: $limit->span,
            deadline: $verdict === Verdict::Running ? $deadline : null,
            evidence: $evidence === [] ? [$stage->event->id] : $evidence,
            options: $options,
        );
    }
}
