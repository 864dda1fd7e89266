<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\Slice;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\ReheatEquipment;
use Verjuicer\Core\Ruleset\FurtherRules;
use Verjuicer\Core\Ruleset\ReheatingRules;

/**
 * Extra conditions of a way to reheat: stirred, covered and left standing in a microwave; an unsliced rest of a roast
 * may follow the roast table.
 */
final readonly class RoastAgainCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $rules = $case->rule(FurtherRules::class);
        foreach ($case->stagesOf(Reheat::class) as $stage) {
            $reheat = $stage->event->detail;
            $isMicrowave = $reheat instanceof Reheat && $reheat->on === ReheatEquipment::Microwave;
            [$citation, $message] = match (true) {
                $isMicrowave => [$rules->microwave, 'house.reheat_microwave'],
                $this->isLowRoast($case, $stage) => [$rules->roastAgain, 'house.reheat_roast'],
                default => [null, ''],
            };
            if ($citation !== null) {
                $findings->add(
                    new Finding(
                        rule: $isMicrowave ? 'house.microwave' : 'house.roast_again',
                        verdict: null,
                        citation: $citation,
                        message: $message,
                        values: ['at' => $stage->from],
                        from: $stage->from,
                        evidence: [$stage->event->id],
                    ),
                );
            }
        }
    }

    /** An unsliced roast that was heated, but not to the temperature for other food. */
    private function isLowRoast(CaseFile $case, Stage $stage): bool
    {
        $readings = $case->readingsIn($stage);
        foreach ($case->timeline->happenings as $event) {
            if ($event->is(Slice::class) && !$event->at->isAfter($stage->from)) {
                return false;
            }
        }

        return $case->product->form === Form::Roast
            && !$stage->isOpen
            && !$readings->isEmpty()
            && $readings->firstAtLeast($case->rule(ReheatingRules::class)->own->threshold) === null;
    }
}
