<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;

/** House limit: how long raw meat may be out of refrigeration for prep before a caution. */
final readonly class PrepOutCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house();
        $firstCook = $case->stagesOf(Cook::class)[0]->order ?? \PHP_INT_MAX;
        foreach ($case->stagesOf(Prep::class) as $stage) {
            if ($firstCook < $stage->order) {
                // Preparation after a cook is off the heat, and judged as that.
                continue;
            }
            $out = Span::between($stage->from, $stage->to);
            $deadline = $stage->from->plus($house->prepOut);
            if ($out->isLongerThan($house->prepOut)) {
                $findings->add(
                    new Finding(
                        rule: 'house.prep_out',
                        verdict: null,
                        citation: $house->citation,
                        message: $stage->isOpen ? 'house.prep_out_open' : 'house.prep_out',
                        values: ['out' => $out, 'limit' => $house->prepOut, 'start' => $stage->from],
                        from: $stage->from,
                        to: $stage->isOpen ? null : $stage->to,
                        elapsed: DurationBounds::ofSeconds($out->seconds, $out->seconds),
                        limit: $house->prepOut,
                        evidence: [$stage->event->id],
                        options: $stage->isOpen ? ['house.back_to_cold'] : [],
                    ),
                );
            }
            if ($stage->isOpen) {
                $findings->countdown(
                    new Countdown('house.prep_out', CountdownKind::House, null, $stage->from, $stage->from, $deadline),
                );
                $findings->turnsAfter($deadline);
            }
        }
    }
}
