<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\ReheatPurpose;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail\Reheat;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\CitedThreshold;

/** Food reheated to be held hot reaches its target in time. */
final readonly class ReheatCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $target = $case->product->form === Form::CommercialReadyToEat ? $case->rules->reheatCommercial : $case->rules->reheatOwn;
        foreach ($case->stagesOf(EventType::Reheat) as $stage) {
            $detail = $stage->event->detail;
            \assert($detail instanceof Reheat);
            if ($detail->for !== ReheatPurpose::HotHold) {
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

    private static function judgeTrack(CaseFile $case, Findings $findings, Stage $stage, CitedThreshold $target, string $track, Trace $trace): void
    {
        $within = $case->rules->reheating->span;
        $hit = $previous = null;
        foreach ($trace->readings as $reading) {
            if ($reading->temp->isAtLeast($target->threshold)) {
                $hit = $reading;
                break;
            }
            $previous = $reading;
        }
        $last = $hit ?? $trace->last();
        \assert($last !== null, 'a track has a reading');
        $early = self::start($case, $stage, $track, $trace, $hit);
        $late = self::firstWarm($case, $trace, $early);
        $start = Instant::ofEpoch($early);
        $deadline = $start->plus($within);
        if ($hit !== null) {
            $elapsed = Bounds::ofSeconds($previous === null || $late === null ? 0 : $previous->at - $late, $hit->at - $early);
            $verdict = Verdict::ofElapsed($elapsed, $within);
            $message = $verdict->value;
        } else {
            $elapsed = Bounds::ofSeconds($late === null ? 0 : $last->at - $late, $stage->to->epoch - $early);
            $isInTime = !$elapsed->greatest->isLongerThan($within);
            $wasDiscarded = $case->timeline->stageAfter($stage)?->type() === EventType::Discard;
            $verdict = match (true) {
                $elapsed->least->isLongerThan($within) => Verdict::Broken,
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
                $findings->countdown(new Countdown('reheat', CountdownKind::Limit, $track, $start, Instant::ofEpoch($late ?? $early), $deadline, $target->threshold));
                $findings->turnsAfter($deadline);
            }
        }
        $findings->add(new Finding(
            'reheat',
            $verdict,
            $case->rules->reheating->citation,
            'reheat.'.$message,
            [
                'target' => $target->threshold,
                'within' => $within,
                'least' => $elapsed->least,
                'greatest' => $elapsed->greatest,
                'start' => $start,
                'deadline' => $deadline,
                'temp' => $last->temp,
                'at' => Instant::ofEpoch($last->at),
            ],
            $track,
            $start,
            $hit !== null ? Instant::ofEpoch($hit->at) : ($stage->isOpen ? null : $stage->to),
            $elapsed,
            $within,
            $verdict === Verdict::Running ? $deadline : null,
            array_values(array_unique([...($previous === null ? [] : [$previous->id]), $last->id])),
            match ($verdict) {
                Verdict::Running => ['reheat.faster'],
                Verdict::NotShown, Verdict::Broken => ['discard'],
                default => [],
            },
        ));
    }

    /** Seconds: the start of the stage, or where it was still cold later than that, the last such reading. */
    private static function start(CaseFile $case, Stage $stage, string $track, Trace $trace, ?Reading $hit): int
    {
        $cold = $case->rules->cold->threshold;
        $lastCold = $hit === null
            ? $trace->atMost($cold)->last()
            : $case->tracks[$track]->atMost($cold)->lastBefore($hit->order);

        return max($stage->from->epoch, $lastCold->at ?? 0);
    }

    /** Seconds: the first reading of the stage shown to be above the cold limit from this moment on. */
    private static function firstWarm(CaseFile $case, Trace $trace, int $from): ?int
    {
        foreach ($trace->readings as $reading) {
            if ($reading->at >= $from && $reading->temp->isAbove($case->rules->cold->threshold)) {
                return $reading->at;
            }
        }

        return null;
    }

    private static function judgeUnread(CaseFile $case, Findings $findings, Stage $stage, CitedThreshold $target): void
    {
        $within = $case->rules->reheating->span;
        $deadline = $stage->from->plus($within);
        $isRunning = $stage->isOpen && !$stage->to->isAfter($deadline);
        $findings->add(new Finding(
            'reheat',
            $isRunning ? Verdict::Running : Verdict::NotShown,
            $case->rules->reheating->citation,
            $isRunning ? 'reheat.not_read_yet' : 'reheat.never_read',
            ['target' => $target->threshold, 'within' => $within, 'start' => $stage->from, 'deadline' => $deadline],
            from: $stage->from,
            to: $stage->isOpen ? null : $stage->to,
            limit: $within,
            deadline: $isRunning ? $deadline : null,
            options: $isRunning ? ['reheat.read'] : ['discard'],
        ));
        if ($stage->isOpen) {
            $findings->countdown(new Countdown('reheat', CountdownKind::Limit, null, $stage->from, $stage->from, $deadline, $target->threshold));
            $findings->turnsAfter($deadline);
        }
    }
}
