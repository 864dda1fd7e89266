<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Report;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;

/**
 * A rule that a record does not meet or document: since when, as far as the record shows, and in which pit, unit or by
 * which method.
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
     * The place in the stage the rule concerns; without one, as for food cooling without a cooling stage, the place
     * when the limit ran out.
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
