<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Record\EventType;

/** House limit: a cooling that was stopped by reheating may start again once. */
final readonly class CoolingRestartCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $restarts = [];
        foreach ($case->blocksOffTheHeat() as $block) {
            $next = $case->timeline->stageAfter($block->stages[\count($block->stages) - 1]);
            if ($block->has(EventType::Cool) && $next?->type() === EventType::Reheat
                && $case->readingsIn($block)->atMost($case->rules->cold->threshold)->isEmpty()) {
                $restarts[] = $next->event->id;
            }
        }
        if (\count($restarts) > 1) {
            $findings->add(new Finding(
                'house.cooling_restarts',
                null,
                $case->rules->house->citation,
                'house.cooling_restarts',
                ['count' => \count($restarts)],
                evidence: $restarts,
                options: ['discard'],
            ));
        }
    }
}
