<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Reheat;

/** House limit: a cooling that was stopped by reheating may start again once. */
final readonly class CoolingRestartCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $restarts = [];
        foreach ($case->blocksOffTheHeat() as $block) {
            $next = $case->timeline->stageAfter($block->last());
            if (
                $block->has(Cool::class)
                && $next?->is(Reheat::class) === true
                && $case->readingsIn($block)->atMost($case->limits->cold->threshold)->isEmpty()
            ) {
                $restarts[] = $next->event->id;
            }
        }
        if (\count($restarts) > 1) {
            $findings->add(
                new Finding(
                    rule: 'house.cooling_restarts',
                    verdict: null,
                    citation: $case->rules->house()->citation,
                    message: 'house.cooling_restarts',
                    values: ['count' => \count($restarts)],
                    evidence: $restarts,
                    options: ['discard'],
                ),
            );
        }
    }
}
