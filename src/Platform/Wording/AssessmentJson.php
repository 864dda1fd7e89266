<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;

/** An assessment as `verjuicer-assessment/1`. */
final readonly class AssessmentJson
{
    public function __construct(private FindingText $text)
    {
    }

    /** @return array<string, mixed> */
    public function of(Assessment $assessment): array
    {
        $zone = $assessment->dangerZone;

        return [
            'format' => 'verjuicer-assessment/1',
            'batch' => $assessment->record->code,
            'rules' => $assessment->rules->id,
            'as_of' => $assessment->timeline->asOf->rfc3339(),
            'verdict' => $assessment->verdict->value,
            'rules_judged' => (object) array_map(
                static fn (Verdict $verdict): string => $verdict->value,
                $assessment->rulesJudged,
            ),
            'findings' => array_map(
                fn (Finding $finding): array => $this->finding($finding, $assessment),
                $assessment->findings,
            ),
            'clocks' => array_map(self::clock(...), $assessment->countdowns),
            'danger_zone' => [
                'estimate_s' => $zone->estimate->seconds,
                'least_s' => $zone->least->seconds,
                'greatest_s' => $zone->greatest->seconds,
                'begins_unread' => $zone->beginsUnread,
                'by_stage' => (object) $zone->byStage,
            ],
            'suspect_readings' => $assessment->suspectReadings,
        ];
    }

    /** @return array<string, mixed> */
    private function finding(Finding $finding, Assessment $assessment): array
    {
        return [
            'rule' => $finding->rule,
            'judged' => $finding->isJudged(),
            'verdict' => $finding->verdict?->value,
            'citation' => $finding->citation,
            'track' => $finding->track,
            'from' => $finding->from?->rfc3339(),
            'to' => $finding->to?->rfc3339(),
            'elapsed_s' => $finding->elapsed === null
                    ? null
                    : ['min' => $finding->elapsed->least->seconds, 'max' => $finding->elapsed->greatest->seconds],
            'limit_s' => $finding->limit?->seconds,
            'deadline' => $finding->deadline?->rfc3339(),
            'evidence' => $finding->evidence,
            'under_advisory' => $finding->isUnderAdvisory,
            'message' => $this->text->sentence($finding, $assessment),
            'options' => $this->text->options($finding, $assessment),
        ];
    }

    /** @return array<string, mixed> */
    private static function clock(Countdown $countdown): array
    {
        return [
            'rule' => $countdown->rule,
            'kind' => $countdown->kind->value,
            'track' => $countdown->track,
            'earliest_start' => $countdown->earliestStart->rfc3339(),
            'latest_start' => $countdown->latestStart->rfc3339(),
            'deadline' => $countdown->deadline->rfc3339(),
        ];
    }
}
