<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\OffHeatPeriod;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\CoolingRules;

/**
 * Below the hot-holding limit, food must meet each cooling limit in time, even if no cooling was recorded. Each limit
 * is judged on its own. A crossing between two readings is in time, late or open.
 */
final readonly class CoolingCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->blocksOffTheHeat() as $block) {
            $isCooling = false;
            foreach ($case->readingsIn($block)->byTrack() as $track => $trace) {
                $below = $trace->firstBelow($case->limits->hot->threshold);
                if ($below !== null) {
                    $isCooling = true;
                    $early = self::lastHot($case, $block, $below);
                    foreach (self::gates($case) as $gate) {
                        self::judgeTrack($case, $findings, $block, $gate, $track, $trace, $below, $early);
                    }
                }
            }
            if (!$isCooling && $block->has(Cool::class, ColdHold::class, Freeze::class)) {
                foreach (self::gates($case) as $gate) {
                    self::judgeUnread($case, $findings, $block, $gate);
                }
            }
        }
    }

    /** @return list<CoolingLimit> */
    private static function gates(CaseFile $case): array
    {
        $rules = $case->rule(CoolingRules::class);

        return [
            new CoolingLimit('cool.stage1', $rules->middle, $rules->stage1),
            new CoolingLimit('cool.total', $case->limits->cold, $rules->total),
        ];
    }

    /**
     * Seconds: the last moment shown to be hot before this reading, on its track, else on any, else the start of the
     * block.
     */
    private static function lastHot(CaseFile $case, OffHeatPeriod $block, TrackReading $below): int
    {
        $hot = $case->hotLimitAt($block->order)->threshold;

        return $case->tracks[$below->track]->atLeast($hot)->lastBefore($below->order)->at
            ?? ($case->readings->atLeast($hot)->lastBefore($below->order)->at ?? $block->from->epoch);
    }

    private static function judgeTrack(
        CaseFile $case,
        Findings $findings,
        OffHeatPeriod $block,
        CoolingLimit $gate,
        string $track,
        Trace $trace,
        TrackReading $below,
        int $early,
    ): void {
        $late = $below->at;
        $within = $gate->within->span;
        [$hit, $previous] = self::hit($trace, $below, $gate);
        $last = $trace->last() ?? $below;
        $deadline = Instant::ofEpoch($early)->plus($within);
        if ($hit !== null) {
            $elapsed = DurationBounds::ofSeconds($previous === null ? 0 : $previous->at - $late, $hit->at - $early);
            $verdict = Verdict::ofElapsed($elapsed, $within);
            $message = $verdict->value;
        } else {
            $elapsed = DurationBounds::ofSeconds($last->at - $late, $block->to->epoch - $early);
            $isInTime = !$elapsed->greatest->isLongerThan($within);
            $verdict = match (true) {
                $elapsed->least->isLongerThan($within) => Verdict::Broken,
                $isInTime => $block->isOpen ? Verdict::Running : Verdict::Stopped,
                default => Verdict::NotShown,
            };
            $message = match ($verdict) {
                Verdict::NotShown => $block->isOpen ? 'overdue' : 'not_reached',
                Verdict::Broken => 'not_reached_broken',
                default => $verdict->value,
            };
            if ($block->isOpen) {
                self::countdown($findings, $gate, $track, Instant::ofEpoch($early), Instant::ofEpoch($late));
            }
        }
        $shown = $hit ?? $last;
        $findings->add(
            new Finding(
                rule: $gate->rule,
                verdict: $verdict,
                citation: $gate->within->citation,
                message: 'cool.'.$message,
                values: [
                    'gate' => $gate->at->threshold,
                    'within' => $within,
                    'hot' => $case->limits->hot->threshold,
                    'least' => $elapsed->least,
                    'greatest' => $elapsed->greatest,
                    'early' => Instant::ofEpoch($early),
                    'late' => Instant::ofEpoch($late),
                    'deadline' => $deadline,
                    'temp' => $shown->temp,
                    'at' => $shown->instant(),
                ],
                track: $track,
                from: Instant::ofEpoch($early),
                to: $hit !== null ? $hit->instant() : ($block->isOpen ? null : $block->to),
                elapsed: $elapsed,
                limit: $within,
                towards: $gate->at->threshold,
                deadline: $verdict === Verdict::Running ? $deadline : null,
                evidence: array_values(
                    array_unique([$below->id, ...$previous === null ? [] : [$previous->id], $shown->id]),
                ),
                options: $hit !== null && $verdict === Verdict::NotShown
                    ? ['cool.decide']
                    : self::options($case, $verdict, $block, $gate),
            ),
        );
    }

    /**
     * @return array{TrackReading|null, TrackReading|null} the first reading at or under the gate from `below` on, and
     *     the one before it in the block
     */
    private static function hit(Trace $trace, TrackReading $below, CoolingLimit $gate): array
    {
        $previous = null;
        foreach ($trace->all() as $reading) {
            if ($reading->order >= $below->order && $reading->temp->isAtMost($gate->at->threshold)) {
                return [$reading, $previous];
            }
            $previous = $reading;
        }

        return [null, null];
    }

    /**
     * Food that went into the cold while nothing shows it under the hot limit: the time counts from when it was last
     * hot.
     */
    private static function judgeUnread(
        CaseFile $case,
        Findings $findings,
        OffHeatPeriod $block,
        CoolingLimit $gate,
    ): void {
        $lastHot = $case->readings->atLeast($case->limits->hot->threshold)->lastBefore($block->endOrder);
        $early = $lastHot?->instant() ?? $block->from;
        $within = $gate->within->span;
        $deadline = $early->plus($within);
        $elapsed = DurationBounds::ofSeconds(0, $block->to->epoch - $early->epoch);
        $verdict = match (true) {
            $elapsed->greatest->isLongerThan($within) => Verdict::NotShown,
            $block->isOpen => Verdict::Running,
            default => Verdict::Stopped,
        };
        $findings->add(
            new Finding(
                rule: $gate->rule,
                verdict: $verdict,
                citation: $gate->within->citation,
                message: 'cool.unread_'.$verdict->value,
                values: [
                    'gate' => $gate->at->threshold,
                    'within' => $within,
                    'hot' => $case->limits->hot->threshold,
                    'early' => $early,
                    'greatest' => $elapsed->greatest,
                    'deadline' => $deadline,
                ],
                from: $early,
                to: $block->isOpen ? null : $block->to,
                elapsed: $elapsed,
                limit: $within,
                towards: $gate->at->threshold,
                deadline: $verdict === Verdict::Running ? $deadline : null,
                evidence: $lastHot === null ? [] : [$lastHot->id],
                // Nothing shows it cooled at all: read now, it may yet be shown hot, and its time begins there.
                options: $block->isOpen
                    ? ['cool.read_now', ...$verdict === Verdict::Running ? [] : ['discard']]
                    : self::options($case, $verdict, $block, $gate),
            ),
        );
        if ($block->isOpen) {
            self::countdown($findings, $gate, null, $early, $case->asOf);
        }
    }

    private static function countdown(
        Findings $findings,
        CoolingLimit $gate,
        ?string $track,
        Instant $early,
        Instant $late,
    ): void {
        $deadline = $early->plus($gate->within->span);
        $findings->countdown(
            new Countdown($gate->rule, CountdownKind::Limit, $track, $early, $late, $deadline, $gate->at->threshold),
        );
        $findings->turnsAfter($deadline);
    }

    /** @return list<string> */
    private static function options(CaseFile $case, Verdict $verdict, OffHeatPeriod $block, CoolingLimit $gate): array
    {
        // Food undercooked by intent rests below the hot-holding limit and is served so: no cooling is asked for.
        $isToServe = $case->product->advisory && !$block->has(Cool::class, ColdHold::class, Freeze::class);

        return match ($verdict) {
            Verdict::Running => $isToServe ? ['cook.serve_under_advisory'] : self::faster($gate),
            // The time is over: no later reading can show that it was in time.
            Verdict::NotShown => $block->isOpen ? ['cool.decide', 'discard'] : ['discard'],
            Verdict::Broken => ['discard'],
            default => [],
        };
    }

    /** @return list<string> */
    private static function faster(CoolingLimit $gate): array
    {
        return $gate->rule === 'cool.stage1' ? ['cool.faster', 'cool.reheat_once'] : ['cool.faster'];
    }
}
