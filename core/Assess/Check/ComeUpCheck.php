<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\CookWindow;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\CookingCategory;

/**
 * House limit: how long the rise from cold to the hot limit may take, shorter where the surface was carried inside. A
 * caution only where the readings show that it took longer: a spot that was merely first read late says nothing.
 */
final readonly class ComeUpCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house();
        foreach ($case->cooks() as $cook) {
            $window = $cook->window;
            if ($window->rule->category === CookingCategory::Side) {
                continue;
            }
            $limit =
                $window->rule->category === CookingCategory::NonIntact ? $house->comeUpNonIntact : $house->comeUpIntact;
            $traces = $case->readingsIn($window->stretch)->byTrack();
            if ($traces === []) {
                self::judgeTrack($case, $findings, $window, $limit, null, Trace::none());
            }
            foreach ($traces as $track => $trace) {
                self::judgeTrack($case, $findings, $window, $limit, $track, $trace);
            }
        }
    }

    private static function judgeTrack(
        CaseFile $case,
        Findings $findings,
        CookWindow $window,
        Span $limit,
        ?string $track,
        Trace $trace,
    ): void {
        $stretch = $window->stretch;
        $towards = $case->limits->hot->threshold;
        $hot = $trace->firstAtLeast($towards);
        $below = $hot === null ? $trace->last() : $trace->lastBefore($hot->order);
        $to = $hot?->instant() ?? $stretch->to;
        $took = DurationBounds::ofSeconds(
            ($below->at ?? $stretch->from->epoch) - $stretch->from->epoch,
            $to->epoch - $stretch->from->epoch,
        );
        if ($took->least->isLongerThan($limit)) {
            $findings->add(
                new Finding(
                    rule: 'house.come_up',
                    verdict: null,
                    citation: $case->rules->house()->citation,
                    message: $hot === null ? 'house.come_up_not_reached' : 'house.come_up',
                    values: [
                        'hot' => $towards,
                        'least' => $took->least,
                        'greatest' => $took->greatest,
                        'limit' => $limit,
                        'start' => $stretch->from,
                        'category' => $window->rule->category->value,
                    ],
                    track: $track,
                    from: $stretch->from,
                    to: $hot === null && $stretch->isOpen ? null : $to,
                    elapsed: $took,
                    limit: $limit,
                    towards: $towards,
                    evidence: array_values(
                        array_filter([$below?->id, $hot?->id], static fn (?string $id): bool => $id !== null),
                    ),
                ),
            );
        }
        if ($hot === null && $stretch->isOpen) {
            $deadline = $stretch->from->plus($limit);
            $findings->countdown(
                new Countdown(
                    'house.come_up',
                    CountdownKind::House,
                    $track,
                    $stretch->from,
                    $stretch->from,
                    $deadline,
                    $towards,
                ),
            );
        }
    }
}
