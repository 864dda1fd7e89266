<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\ReheatPurpose;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\ReheatingRules;

/** Food reheated to be held hot reaches its target in time. */
final readonly class ReheatCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $rules = $case->rule(ReheatingRules::class);
        $target =
            $case->product->form === Form::CommercialReadyToEat
                ? $rules->commercial->threshold
                : $rules->own->threshold;
        foreach ($case->stagesOf(Reheat::class) as $stage) {
            $reheat = $stage->event->detail;
            \assert($reheat instanceof Reheat);
            if ($reheat->for !== ReheatPurpose::HotHold) {
                continue;
            }
            $readings = $case->readingsIn($stage);
            if ($readings->isEmpty()) {
                self::judgeUnread($case, $findings, $stage, $target);
            }
            foreach ($readings->byTrack() as $track => $trace) {
                self::judgeTrack($case, $findings, $stage, $target, $track, $trace);
            }
        }
    }

    private static function judgeTrack(
        CaseFile $case,
        Findings $findings,
        Stage $stage,
        Threshold $target,
        string $track,
        Trace $trace,
    ): void {
        $within = $case->rule(ReheatingRules::class)->within;
        $hit = $trace->firstAtLeast($target);
        $previous = $hit === null ? $trace->last() : $trace->lastBefore($hit->order);
        $last = $hit ?? $previous;
        \assert($last !== null, 'a track has a reading');
        $early = self::start($case, $stage, $track, $trace, $hit);
        $late = self::firstWarm($case, $trace, $early);
        $start = Instant::ofEpoch($early);
        $deadline = $start->plus($within->span);
        if ($hit !== null) {
            $elapsed = DurationBounds::ofSeconds(
                $previous === null || $late === null ? 0 : $previous->at - $late,
                $hit->at - $early,
            );
            $verdict = Verdict::ofElapsed($elapsed, $within->span);
            $message = $verdict->value;
        } else {
            $elapsed = DurationBounds::ofSeconds($late === null ? 0 : $last->at - $late, $stage->to->epoch - $early);
            $isInTime = !$elapsed->greatest->isLongerThan($within->span);
            $wasDiscarded = $case->timeline->stageAfter($stage)?->is(Discard::class) === true;
            $verdict = match (true) {
                $elapsed->least->isLongerThan($within->span) => Verdict::Broken,
                $stage->isOpen && $isInTime => Verdict::Running,
                $wasDiscarded && $isInTime => Verdict::Stopped,
                default => Verdict::NotShown,
            };
            $message = match (true) {
                $verdict !== Verdict::NotShown => 'unfinished_'.$verdict->value,
                $stage->isOpen => 'overdue',
                default => 'not_reached',
            };
            if ($stage->isOpen) {
                $warm = Instant::ofEpoch($late ?? $early);
                $findings->countdown(
                    new Countdown('reheat', CountdownKind::Limit, $track, $start, $warm, $deadline, $target),
                );
                $findings->turnsAfter($deadline);
            }
        }
        $findings->add(
            new Finding(
                rule: 'reheat',
                verdict: $verdict,
                citation: $within->citation,
                message: 'reheat.'.$message,
                values: [
                    'target' => $target,
                    'within' => $within->span,
                    'least' => $elapsed->least,
                    'greatest' => $elapsed->greatest,
                    'start' => $start,
                    'deadline' => $deadline,
                    'temp' => $last->temp,
                    'at' => $last->instant(),
                ],
                track: $track,
                from: $start,
                to: $hit !== null ? $hit->instant() : ($stage->isOpen ? null : $stage->to),
                elapsed: $elapsed,
                limit: $within->span,
                towards: $target,
                deadline: $verdict === Verdict::Running ? $deadline : null,
                evidence: array_values(array_unique([...$previous === null ? [] : [$previous->id], $last->id])),
                options: match ($verdict) {
                    Verdict::Running => ['reheat.faster'],
                    Verdict::NotShown, Verdict::Broken => ['discard'],
                    default => [],
                },
            ),
        );
    }

    /** Seconds: the start of the stage, or where it was still cold later than that, the last such reading. */
    private static function start(CaseFile $case, Stage $stage, string $track, Trace $trace, ?TrackReading $hit): int
    {
        $cold = $case->limits->cold->threshold;
        $lastCold =
            $hit === null
                ? $trace->atMost($cold)->last()
                : $case->tracks[$track]->atMost($cold)->lastBefore($hit->order);

        return $lastCold === null ? $stage->from->epoch : max($stage->from->epoch, $lastCold->at);
    }

    /** Seconds: the first reading of the stage shown to be above the cold limit from this moment on. */
    private static function firstWarm(CaseFile $case, Trace $trace, int $from): ?int
    {
        foreach ($trace->all() as $reading) {
            if ($reading->at >= $from && $reading->temp->isAbove($case->limits->cold->threshold)) {
                return $reading->at;
            }
        }

        return null;
    }

    private static function judgeUnread(CaseFile $case, Findings $findings, Stage $stage, Threshold $target): void
    {
        $within = $case->rule(ReheatingRules::class)->within;
        $deadline = $stage->from->plus($within->span);
        $isRunning = $stage->isOpen && !$stage->to->isAfter($deadline);
        $findings->add(
            new Finding(
                rule: 'reheat',
                verdict: $isRunning ? Verdict::Running : Verdict::NotShown,
                citation: $within->citation,
                message: $isRunning ? 'reheat.not_read_yet' : 'reheat.never_read',
                values: [
                    'target' => $target,
                    'within' => $within->span,
                    'start' => $stage->from,
                    'deadline' => $deadline,
                ],
                from: $stage->from,
                to: $stage->isOpen ? null : $stage->to,
                limit: $within->span,
                towards: $target,
                deadline: $isRunning ? $deadline : null,
                options: $isRunning ? ['reheat.read'] : ['discard'],
            ),
        );
        if ($stage->isOpen) {
            $findings->countdown(
                new Countdown('reheat', CountdownKind::Limit, null, $stage->from, $stage->from, $deadline, $target),
            );
            $findings->turnsAfter($deadline);
        }
    }
}
