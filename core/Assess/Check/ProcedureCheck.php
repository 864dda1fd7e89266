<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\NeededProcedures;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Ruleset\ProcedureRules;

/** Some steps need a written procedure in force at the site. Records without `site.procedures` are not checked. */
final readonly class ProcedureCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        if ($case->site->procedures === null) {
            return;
        }
        $rules = $case->rule(ProcedureRules::class);
        $timeline = $case->timeline;
        // Any step on a treated product needs one; otherwise no reading does.
        $events = $case->product->treatments === [] ? $timeline->happenings : $timeline->events;
        foreach (NeededProcedures::of($case->site, $case->product, $events) as $needed) {
            $citation = $rules->citation($needed['kind']);
            if ($needed['procedure'] === null && $citation !== null) {
                $findings->add(
                    new Finding(
                        rule: 'house.procedure',
                        verdict: null,
                        citation: $citation,
                        message: 'house.procedure_'.$needed['kind']->value,
                        values: ['at' => $needed['event']->at],
                        from: $needed['event']->at,
                        evidence: [$needed['event']->id],
                    ),
                );
            }
        }
    }
}
