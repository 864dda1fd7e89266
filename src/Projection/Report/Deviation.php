<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Report;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;

/**
 * One rule that a record breaks or does not show: when that began, as far as the record tells, and in what pit, unit or
 * by what method.
 */
final readonly class Deviation
{
    public function __construct(public string $rule, public ?Instant $at, public ?string $unit)
    {
    }

    /** @return list<self> one a rule, the first of each */
    public static function of(Assessment $assessment): array
    {
        $happened = [];
        foreach ($assessment->timeline->events as $event) {
            $happened[$event->id] = $event->at;
        }
        $first = [];
        foreach ($assessment->findings as $finding) {
            if ($finding->verdict === Verdict::Broken || $finding->verdict === Verdict::NotShown) {
                $at = self::moment($finding, $happened);
                $before = $first[$finding->rule]->at ?? null;
                if (
                    !isset($first[$finding->rule])
                    || ($at !== null && ($before === null || $at->epoch < $before->epoch))
                ) {
                    $first[$finding->rule] = new self($finding->rule, $at, self::unitOf($assessment, $finding, $at));
                }
            }
        }

        return array_values($first);
    }

    /** @param array<string, Instant> $happened by the event's id */
    private static function moment(Finding $finding, array $happened): ?Instant
    {
        $last = array_key_last($finding->evidence);

        return $finding->from
            ?? ($finding->to
                ?? ($finding->deadline ?? ($last === null ? null : $happened[$finding->evidence[$last]] ?? null)));
    }

    /**
     * Where it was in the stage the rule is about; where none is, as when food cools that nobody called cooling, where
     * it was when the limit ran out.
     */
    private static function unitOf(Assessment $assessment, Finding $finding, ?Instant $at): ?string
    {
        $ranOut = $finding->deadline ?? (($finding->limit === null ? null : $at?->plus($finding->limit)) ?? $at);
        if ($ranOut === null) {
            return null;
        }
        $of = $within = null;
        foreach ($assessment->timeline->stages as $stage) {
            if ($stage->from->epoch <= $ranOut->epoch) {
                $within = $stage;
                $of = $stage->name() === strtok($finding->rule, '.') ? $stage : $of;
            }
        }

        return ($of ?? $within)?->place();
    }
}
