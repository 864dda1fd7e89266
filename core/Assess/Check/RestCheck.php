<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\UnreadGap;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Ruleset\Monitoring;

/** Off the heat without cooling: shown to be hot throughout only by readings close enough together. */
final readonly class RestCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $gap = $case->rule(Monitoring::class)->restGap;
        $hot = $case->limits->hot->threshold;
        foreach ($case->blocksOffTheHeat() as $block) {
            $readings = $case->readingsIn($block);
            if ($block->has(Cool::class, ColdHold::class, Freeze::class) || $readings->firstBelow($hot) !== null) {
                continue;
            }
            $silence = UnreadGap::longestIn($block->from, $block->to, $readings);
            $last = $readings->last();
            $since = $last?->instant() ?? $block->from;
            $deadline = $since->plus($gap->span);
            $verdict = $silence->span()->isLongerThan($gap->span)
                ? Verdict::NotShown
                : Verdict::allWell($block->isOpen);
            // Meat pulled at 115 °F was never hot: no gap between readings says that it stayed so.
            $before = $case->readings->lastBefore($block->order);
            $cameOff = $before !== null && $before->temp->isBelow($hot) ? $before->temp : null;
            $findings->add(
                new Finding(
                    rule: 'rest',
                    verdict: $verdict,
                    citation: $gap->citation,
                    message: match (true) {
                        $last === null && $cameOff !== null && $verdict !== Verdict::NotShown => 'rest.came_off_under',
                        $last === null && $verdict === Verdict::Running => 'rest.not_read_yet',
                        default => 'rest.'.$verdict->value,
                    },
                    values: [
                        'gap' => $gap->span,
                        'silence' => $silence->span(),
                        'from' => $silence->from,
                        'to' => $silence->to,
                        'hot' => $hot,
                        'deadline' => $deadline,
                        'count' => $readings->count(),
                        ...$cameOff === null ? [] : ['temp' => $cameOff],
                    ],
                    from: $block->from,
                    to: $block->isOpen ? null : $block->to,
                    limit: $gap->span,
                    towards: $hot,
                    deadline: $verdict === Verdict::Running ? $deadline : null,
                    evidence: $last === null ? [] : [$last->id],
                    options: match ($verdict) {
                        Verdict::NotShown => $block->isOpen ? ['rest.read_now', 'discard'] : ['discard'],
                        Verdict::Running => ['rest.read'],
                        default => [],
                    },
                ),
            );
            if ($block->isOpen) {
                $findings->countdown(
                    new Countdown('rest', CountdownKind::Check, null, $since, $since, $deadline, $hot),
                );
                $findings->turnsAfter($deadline);
            }
        }
    }
}
