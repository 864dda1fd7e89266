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
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\ThawingRules;

/**
 * Thawing stays cold; under running water it may be above the cold limit for a while, unless it is ready to eat.
 */
final readonly class ThawCheck implements RuleCheck
{
    /** The method of the open format under which the water's rules hold. */
    private const RUNNING_WATER = 'running_water';

    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(Thaw::class) as $stage) {
            $thaw = $stage->event->detail;
            \assert($thaw instanceof Thaw);
            $readings = $case->readingsIn($stage);
            if ($readings->isEmpty()) {
                continue;
            }
            $isInWater = $thaw->method === self::RUNNING_WATER;
            if ($isInWater && !self::isReadyToEat($case, $stage)) {
                $this->inWater($case, $findings, $stage, $readings);
            } else {
                $this->inTheCold($case, $findings, $stage, $readings, $isInWater);
            }
        }
    }

    private function inTheCold(
        CaseFile $case,
        Findings $findings,
        Stage $stage,
        Trace $readings,
        bool $isInWater,
    ): void {
        $rules = $case->rule(ThawingRules::class);
        $cold = $case->limits->cold->threshold;
        $warm = $readings->firstAbove($cold);
        $last = $readings->last();
        \assert($last !== null, 'it was read');
        $shown = $warm ?? $last;
        $findings->add(
            new Finding(
                rule: 'thaw',
                verdict: $warm === null ? Verdict::allWell($stage->isOpen) : Verdict::Broken,
                citation: $isInWater ? $rules->readyToEatCitation : $rules->citation,
                message: ($isInWater ? 'thaw.ready_to_eat_' : 'thaw.').($warm === null ? 'met' : 'broken'),
                values: [
                    'limit' => $cold,
                    'count' => $readings->count(),
                    'temp' => $shown->temp,
                    'at' => $shown->instant(),
                ],
                from: $stage->from,
                to: $stage->isOpen ? null : $stage->to,
                towards: $cold,
                evidence: [$shown->id],
                options: $warm === null ? [] : ['discard'],
            ),
        );
    }

    /** Bought ready to eat, or cooked here before it is thawed. */
    private static function isReadyToEat(CaseFile $case, Stage $thaw): bool
    {
        if ($case->product->form === Form::CommercialReadyToEat) {
            return true;
        }
        foreach ($case->stagesOf(Cook::class) as $cook) {
            if ($cook->order < $thaw->order) {
                return true;
            }
        }

        return false;
    }

    private function inWater(CaseFile $case, Findings $findings, Stage $stage, Trace $readings): void
    {
        $rules = $case->rule(ThawingRules::class);
        $tooWarm = $readings->firstAbove($rules->runningWater->threshold);
        if ($tooWarm !== null) {
            $findings->add(
                new Finding(
                    rule: 'thaw',
                    verdict: Verdict::Broken,
                    citation: $rules->runningWater->citation,
                    message: 'thaw.water_too_warm',
                    values: [
                        'limit' => $rules->runningWater->threshold,
                        'temp' => $tooWarm->temp,
                        'at' => $tooWarm->instant(),
                    ],
                    from: $stage->from,
                    to: $stage->isOpen ? null : $stage->to,
                    towards: $rules->runningWater->threshold,
                    evidence: [$tooWarm->id],
                    options: ['discard'],
                ),
            );

            return;
        }
        $warm = $readings->firstAbove($case->limits->cold->threshold);
        $since = $warm?->instant() ?? $stage->to;
        $above = Span::between($since, $stage->to);
        $within = $rules->aboveCold->span;
        $isTooLong = $above->isLongerThan($within);
        $deadline = $since->plus($within);
        $isRunning = $stage->isOpen && $warm !== null;
        $findings->add(
            new Finding(
                rule: 'thaw',
                verdict: $isTooLong ? Verdict::Broken : Verdict::allWell($stage->isOpen),
                citation: $rules->aboveCold->citation,
                message: $isTooLong ? 'thaw.water_too_long' : ($isRunning ? 'thaw.water_running' : 'thaw.water_met'),
                values: [
                    'cold' => $case->limits->cold->threshold,
                    'above' => $above,
                    'within' => $within,
                    'since' => $since,
                    'deadline' => $deadline,
                ],
                from: $stage->from,
                to: $stage->isOpen ? null : $stage->to,
                elapsed: DurationBounds::ofSeconds($above->seconds, $above->seconds),
                limit: $within,
                deadline: $isRunning && !$isTooLong ? $deadline : null,
                evidence: $this->evidence($warm, $readings),
                options: $isTooLong ? ['discard'] : [],
            ),
        );
        if ($isRunning) {
            $findings->countdown(new Countdown('thaw', CountdownKind::Limit, null, $since, $since, $deadline));
            $findings->turnsAfter($deadline);
        }
    }

    /** @return list<string> */
    private function evidence(?TrackReading $warm, Trace $readings): array
    {
        $last = $readings->last();

        return array_values(
            array_unique(array_filter([$warm?->id, $last?->id], static fn (?string $id): bool => $id !== null)),
        );
    }
}
