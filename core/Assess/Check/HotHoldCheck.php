<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\UnreadGap;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\CitedThreshold;
use Verjuicer\Core\Ruleset\Monitoring;

/** Held food stays at its hot limit, and readings close enough together show it. */
final readonly class HotHoldCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(HotHold::class) as $stage) {
            $limit = $case->hotLimitAt($stage->order);
            $readings = $case->readingsIn($stage);
            $dips = 0;
            foreach ($readings->byTrack() as $track => $trace) {
                $dip = self::dip($case, $stage, $limit, $track, $trace);
                if ($dip !== null) {
                    ++$dips;
                    $findings->add($dip);
                }
            }
            $silence = self::silence($case, $stage, $limit, $readings, $dips > 0);
            if ($silence !== null) {
                $findings->add($silence);
            }
            if ($stage->isOpen) {
                self::countdowns($case, $stage, $limit, $readings, $findings);
            }
        }
    }

    /** The first reading of a track below the limit, with how long it may have been there. */
    private static function dip(
        CaseFile $case,
        Stage $stage,
        CitedThreshold $limit,
        string $track,
        Trace $trace,
    ): ?Finding {
        $below = $trace->firstBelow($limit->threshold);
        if ($below === null) {
            return null;
        }
        $earliest = $trace->lastBefore($below->order)->at ?? $stage->from->epoch;
        $until = $stage->to->epoch;
        $lastBelow = $below->at;
        foreach ($trace->all() as $reading) {
            if ($reading->order > $below->order) {
                if ($reading->temp->isAtLeast($limit->threshold)) {
                    $until = $reading->at;
                    break;
                }
                $lastBelow = $reading->at;
            }
        }
        $elapsed = DurationBounds::ofSeconds($lastBelow - $below->at, $until - $earliest);
        $house = $case->rules->house();

        return new Finding(
            rule: 'hot_hold',
            verdict: Verdict::Broken,
            citation: $limit->citation,
            message: 'hot_hold.broken',
            values: [
                'limit' => $limit->threshold,
                'temp' => $below->temp,
                'at' => $below->instant(),
                'earliest' => Instant::ofEpoch($earliest),
                'house' => $house->belowHot,
            ],
            track: $track,
            from: Instant::ofEpoch($earliest),
            to: $below->instant(),
            elapsed: $elapsed,
            towards: $limit->threshold,
            evidence: [$below->id],
            options: $elapsed->greatest->isLongerThan($house->belowHot) ? ['discard'] : ['hot_hold.reheat', 'discard'],
        );
    }

    private static function silence(
        CaseFile $case,
        Stage $stage,
        CitedThreshold $limit,
        Trace $readings,
        bool $isBroken,
    ): ?Finding {
        $gap = $case->rule(Monitoring::class)->hotHoldGap->span;
        $silence = UnreadGap::longestIn($stage->from, $stage->to, $readings);
        $isTooLong = $silence->span()->isLongerThan($gap) || ($readings->isEmpty() && !$stage->isOpen);
        if ($isBroken && !$isTooLong) {
            return null;
        }
        $last = $readings->last();
        $deadline = ($last?->instant() ?? $stage->from)->plus($gap);

        return new Finding(
            rule: 'hot_hold',
            verdict: $isTooLong ? Verdict::NotShown : Verdict::allWell($stage->isOpen),
            citation: $limit->citation,
            message: match (true) {
                $readings->isEmpty() => $isTooLong ? 'hot_hold.never_read' : 'hot_hold.not_read_yet',
                $isTooLong => 'hot_hold.gap',
                $stage->isOpen => 'hot_hold.running',
                default => 'hot_hold.met',
            },
            values: [
                'limit' => $limit->threshold,
                'gap' => $gap,
                'silence' => $silence->span(),
                'from' => $silence->from,
                'to' => $silence->to,
                'deadline' => $deadline,
                'count' => $readings->count(),
            ],
            from: $stage->from,
            to: $stage->isOpen ? null : $stage->to,
            limit: $gap,
            towards: $limit->threshold,
            deadline: $stage->isOpen && !$isTooLong ? $deadline : null,
            evidence: $last === null ? [] : [$last->id],
            options: $isTooLong ? ['hot_hold.read_now', 'discard'] : [],
        );
    }

    private static function countdowns(
        CaseFile $case,
        Stage $stage,
        CitedThreshold $limit,
        Trace $readings,
        Findings $findings,
    ): void {
        $since = $readings->last()?->instant() ?? $stage->from;
        $round = $since->plus($case->rules->house()->hotHoldCheck);
        $last = $since->plus($case->rule(Monitoring::class)->hotHoldGap->span);
        $findings->countdown(
            new Countdown('hot_hold', CountdownKind::Check, null, $since, $since, $round, $limit->threshold),
        );
        $findings->countdown(
            new Countdown('hot_hold', CountdownKind::Limit, null, $since, $since, $last, $limit->threshold),
        );
        $findings->turnsAfter($last);
    }
}
