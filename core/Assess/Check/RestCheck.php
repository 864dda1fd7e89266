<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Silence;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\EventType;

/** Off the heat without cooling: shown to be hot throughout only by readings close enough together. */
final readonly class RestCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $gap = $case->rules->monitoring->restGap;
        foreach ($case->blocksOffTheHeat() as $block) {
            $readings = $case->readingsIn($block);
            if ($block->has(EventType::Cool, EventType::ColdHold, EventType::Freeze) || $readings->firstBelow($case->rules->hot->threshold) !== null) {
                continue;
            }
            $silence = Silence::longestIn($block->from, $block->to, $readings);
            $last = $readings->last();
            $since = Instant::ofEpoch($last->at ?? $block->from->epoch);
            $deadline = $since->plus($gap->span);
            $verdict = $silence->span()->isLongerThan($gap->span) ? Verdict::NotShown : Verdict::allWell($block->isOpen);
            $findings->add(new Finding(
                'rest',
                $verdict,
                $gap->citation,
                $last === null && $verdict === Verdict::Running ? 'rest.not_read_yet' : 'rest.'.$verdict->value,
                [
                    'gap' => $gap->span,
                    'silence' => $silence->span(),
                    'from' => $silence->from,
                    'to' => $silence->to,
                    'hot' => $case->rules->hot->threshold,
                    'deadline' => $deadline,
                    'count' => \count($readings->readings),
                ],
                from: $block->from,
                to: $block->isOpen ? null : $block->to,
                limit: $gap->span,
                deadline: $verdict === Verdict::Running ? $deadline : null,
                evidence: $last === null ? [] : [$last->id],
                options: match ($verdict) {
                    Verdict::NotShown => $block->isOpen ? ['rest.read_now', 'discard'] : ['discard'],
                    Verdict::Running => ['rest.read'],
                    default => [],
                },
            ));
            if ($block->isOpen) {
                $findings->countdown(new Countdown('rest', CountdownKind::Check, null, $since, $since, $deadline, $case->rules->hot->threshold));
                $findings->turnsAfter($deadline);
            }
        }
    }
}
