<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** Names a reheat on equipment that holds hot but does not reheat: a steam table, a chafing dish, a holding cabinet. */
final readonly class SteamTableReheatCheck implements Check
{
    /** What the application writes as the method of such a reheat. */
    public const METHODS = ['steam_table', 'chafing_dish', 'cabinet'];

    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(EventType::Reheat) as $stage) {
            if (\in_array((new Extras($stage->event))->text('on'), self::METHODS, true)) {
                $findings->add(new Finding('house.steam_table_reheat', null, $case->rules->house->citation, 'house.steam_table_reheat', ['at' => $stage->from], from: $stage->from, evidence: [$stage->event->id], options: ['reheat.faster']));
            }
        }
    }
}
