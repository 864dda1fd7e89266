<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Reheat;

/** Names a reheat on equipment that holds hot but does not reheat: a steam table, a chafing dish, a holding cabinet. */
final readonly class SteamTableReheatCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(Reheat::class) as $stage) {
            $reheat = $stage->event->detail;
            if ($reheat instanceof Reheat && $reheat->on?->onlyHolds() === true) {
                $findings->add(
                    new Finding(
                        rule: 'house.steam_table_reheat',
                        verdict: null,
                        citation: $case->rules->house()->citation,
                        message: 'house.steam_table_reheat',
                        values: ['at' => $stage->from],
                        from: $stage->from,
                        evidence: [$stage->event->id],
                        options: $stage->isOpen ? ['reheat.faster'] : [],
                    ),
                );
            }
        }
    }
}
