<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\FurtherRules;

/** A side made from ingredients at room temperature gets cold in time. Its first cold reading shows it. */
final readonly class SideCoolingCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $limit = $case->rule(FurtherRules::class)->ambient;
        $cold = $case->rules->limits()->cold->threshold;
        $first = $case->timeline->events[0] ?? null;
        if ($limit === null || $case->product->form !== Form::Side || $first === null) {
            return;
        }
        if ($case->stagesOf(Cook::class, Reheat::class, HotHold::class) !== []) {
            return; // it was hot: the gates of cooling are for that
        }
        $reading = $case->readings->atMost($cold)->first();
        $shown = $reading === null ? null : Instant::ofEpoch($reading->at);
        $deadline = $first->at->plus($limit->span);
        $end = $case->timeline->end ?? $case->asOf;
        if ($shown === null ? !$end->isAfter($deadline) : !$shown->isAfter($deadline)) {
            if ($shown === null) {
                $findings->turnsAfter($deadline);
            }

            return;
        }
        $findings->add(
            new Finding(
                rule: 'house.side_cooling',
                verdict: null,
                citation: $limit->citation,
                message: $shown === null ? 'house.side_cooling_unshown' : 'house.side_cooling_late',
                values: [
                    'within' => $limit->span,
                    'took' => Span::between($first->at, $shown ?? $end),
                    'at' => $first->at,
                    'limit' => $cold,
                ],
                from: $first->at,
                to: $shown,
                limit: $limit->span,
                evidence: [$first->id],
            ),
        );
    }
}
