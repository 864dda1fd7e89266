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
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\CookingCategory;

/** House limit: how long the rise from cold to the hot limit may take, shorter where the surface was carried inside. */
final readonly class ComeUpCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->cooks() as $cook) {
            $window = $cook->window;
            $limit = $window->rule->category === CookingCategory::NonIntact ? $case->rules->house->comeUpNonIntact : $case->rules->house->comeUpIntact;
            $traces = $case->readingsIn($window->stretch)->byTrack();
            if ($traces === []) {
                self::judgeTrack($case, $findings, $window, $limit, null, new Trace([]));
            }
            foreach ($traces as $track => $trace) {
                self::judgeTrack($case, $findings, $window, $limit, $track, $trace);
            }
        }
    }

    private static function judgeTrack(CaseFile $case, Findings $findings, CookWindow $window, Span $limit, ?string $track, Trace $trace): void
    {
        $stretch = $window->stretch;
        $hot = $trace->atLeast($case->rules->hot->threshold)->first();
        $to = $hot === null ? $stretch->to : Instant::ofEpoch($hot->at);
        $deadline = $stretch->from->plus($limit);
        if ($to->isAfter($deadline)) {
            $below = $hot === null ? $trace->last() : $trace->lastBefore($hot->order);
            $findings->add(new Finding(
                'house.come_up',
                null,
                $case->rules->house->citation,
                $hot === null ? 'house.come_up_not_reached' : 'house.come_up',
                ['hot' => $case->rules->hot->threshold, 'took' => Span::between($stretch->from, $to), 'limit' => $limit, 'start' => $stretch->from, 'category' => $window->rule->category->value],
                $track,
                $stretch->from,
                $hot === null && $stretch->isOpen ? null : $to,
                Bounds::ofSeconds(($below->at ?? $stretch->from->epoch) - $stretch->from->epoch, $to->epoch - $stretch->from->epoch),
                $limit,
                evidence: $hot === null ? [] : [$hot->id],
            ));
        }
        if ($hot === null && $stretch->isOpen) {
            $findings->countdown(new Countdown('house.come_up', CountdownKind::House, $track, $stretch->from, $stretch->from, $deadline, $case->rules->hot->threshold));
            $findings->turnsAfter($deadline);
        }
    }
}
