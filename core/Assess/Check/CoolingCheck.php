<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Stretch;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\CitedSpan;
use Verjuicer\Core\Ruleset\CitedThreshold;

/**
 * Once under the hot limit, whether anybody called it cooling or not, food passes each gate in its time.
 * Judged twice, once for each gate; between shown in time and shown late lies what the readings leave open.
 */
final readonly class CoolingCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->blocksOffTheHeat() as $block) {
            $isCooling = false;
            foreach ($case->readingsIn($block)->byTrack() as $track => $trace) {
                $below = $trace->firstBelow($case->rules->hot->threshold);
                if ($below !== null) {
                    $isCooling = true;
                    $early = self::lastHot($case, $block, $below);
                    foreach (self::gates($case) as $rule => [$gate, $within]) {
                        self::judgeTrack($case, $findings, $block, $rule, $gate, $within, $track, $trace, $below, $early);
                    }
                }
            }
            if (!$isCooling && $block->has(EventType::Cool, EventType::ColdHold, EventType::Freeze)) {
                foreach (self::gates($case) as $rule => [$gate, $within]) {
                    self::judgeUnread($case, $findings, $block, $rule, $gate, $within);
                }
            }
        }
    }

    /** @return array<string, array{CitedThreshold, CitedSpan}> */
    private static function gates(CaseFile $case): array
    {
        return [
            'cool.stage1' => [$case->rules->coolingMiddle, $case->rules->coolingStage1],
            'cool.total' => [$case->rules->cold, $case->rules->coolingTotal],
        ];
    }

    /** Seconds: the last moment shown to be hot before this reading, on its track, else on any, else the start of the block. */
    private static function lastHot(CaseFile $case, Stretch $block, Reading $below): int
    {
        $hot = $case->hotLimitAt($block->order)->threshold;

        return $case->tracks[$below->track]->atLeast($hot)->lastBefore($below->order)->at
            ?? $case->readings->atLeast($hot)->lastBefore($below->order)->at
            ?? $block->from->epoch;
    }

    private static function judgeTrack(CaseFile $case, Findings $findings, Stretch $block, string $rule, CitedThreshold $gate, CitedSpan $within, string $track, Trace $trace, Reading $below, int $early): void
    {
        $late = $below->at;
        [$hit, $previous] = self::hit($trace, $below, $gate);
        $last = $trace->last() ?? $below;
        $deadline = Instant::ofEpoch($early)->plus($within->span);
        if ($hit !== null) {
            $elapsed = Bounds::ofSeconds($previous === null ? 0 : $previous->at - $late, $hit->at - $early);
            $verdict = Verdict::ofElapsed($elapsed, $within->span);
            $message = $verdict->value;
        } else {
            $elapsed = Bounds::ofSeconds($last->at - $late, $block->to->epoch - $early);
            $isInTime = !$elapsed->greatest->isLongerThan($within->span);
            $verdict = match (true) {
                $elapsed->least->isLongerThan($within->span) => Verdict::Broken,
                $isInTime => $block->isOpen ? Verdict::Running : Verdict::Stopped,
                default => Verdict::NotShown,
            };
            $message = match ($verdict) {
                Verdict::NotShown => $block->isOpen ? 'overdue' : 'not_reached',
                Verdict::Broken => 'not_reached_broken',
                default => $verdict->value,
            };
            if ($block->isOpen) {
                $findings->countdown(new Countdown($rule, CountdownKind::Limit, $track, Instant::ofEpoch($early), Instant::ofEpoch($late), $deadline, $gate->threshold));
                $findings->turnsAfter($deadline);
            }
        }
        $findings->add(new Finding(
            $rule,
            $verdict,
            $within->citation,
            'cool.'.$message,
            [
                'gate' => $gate->threshold,
                'within' => $within->span,
                'hot' => $case->rules->hot->threshold,
                'least' => $elapsed->least,
                'greatest' => $elapsed->greatest,
                'early' => Instant::ofEpoch($early),
                'late' => Instant::ofEpoch($late),
                'deadline' => $deadline,
                'temp' => ($hit ?? $last)->temp,
                'at' => Instant::ofEpoch(($hit ?? $last)->at),
            ],
            $track,
            Instant::ofEpoch($early),
            $hit !== null ? Instant::ofEpoch($hit->at) : ($block->isOpen ? null : $block->to),
            $elapsed,
            $within->span,
            $verdict === Verdict::Running ? $deadline : null,
            array_values(array_unique([$below->id, ...($previous === null ? [] : [$previous->id]), ($hit ?? $last)->id])),
            $hit !== null && $verdict === Verdict::NotShown ? ['cool.decide'] : self::options($verdict, $block, $rule),
        ));
    }

    /** @return array{Reading|null, Reading|null} the first reading at or under the gate from `below` on, and the one before it in the block */
    private static function hit(Trace $trace, Reading $below, CitedThreshold $gate): array
    {
        $previous = null;
        foreach ($trace->readings as $reading) {
            if ($reading->order >= $below->order && $reading->temp->isAtMost($gate->threshold)) {
                return [$reading, $previous];
            }
            $previous = $reading;
        }

        return [null, null];
    }

    /** Food that went into the cold while nothing shows it under the hot limit: the clock counts from when it was last hot. */
    private static function judgeUnread(CaseFile $case, Findings $findings, Stretch $block, string $rule, CitedThreshold $gate, CitedSpan $within): void
    {
        $lastHot = $case->readings->atLeast($case->rules->hot->threshold)->lastBefore($block->endOrder);
        $early = Instant::ofEpoch($lastHot->at ?? $block->from->epoch);
        $deadline = $early->plus($within->span);
        $elapsed = Bounds::ofSeconds(0, $block->to->epoch - $early->epoch);
        $verdict = match (true) {
            $elapsed->greatest->isLongerThan($within->span) => Verdict::NotShown,
            $block->isOpen => Verdict::Running,
            default => Verdict::Stopped,
        };
        $findings->add(new Finding(
            $rule,
            $verdict,
            $within->citation,
            'cool.unread_'.$verdict->value,
            ['gate' => $gate->threshold, 'within' => $within->span, 'hot' => $case->rules->hot->threshold, 'early' => $early, 'greatest' => $elapsed->greatest, 'deadline' => $deadline],
            null,
            $early,
            $block->isOpen ? null : $block->to,
            $elapsed,
            $within->span,
            $verdict === Verdict::Running ? $deadline : null,
            $lastHot === null ? [] : [$lastHot->id],
            $verdict === Verdict::Running ? ['cool.read_now'] : self::options($verdict, $block, $rule),
        ));
        if ($block->isOpen) {
            $findings->countdown(new Countdown($rule, CountdownKind::Limit, null, $early, $case->asOf, $deadline, $gate->threshold));
            $findings->turnsAfter($deadline);
        }
    }

    /** @return list<string> */
    private static function options(Verdict $verdict, Stretch $block, string $rule): array
    {
        return match ($verdict) {
            Verdict::Running => $rule === 'cool.stage1' ? ['cool.faster', 'cool.reheat_once'] : ['cool.faster'],
            Verdict::NotShown => $block->isOpen ? ['cool.read_now', 'discard'] : ['discard'],
            Verdict::Broken => ['discard'],
            default => [],
        };
    }
}
