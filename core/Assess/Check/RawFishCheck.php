<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Event\Kinds\Serve;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Ruleset\FurtherRules;

/** Fish served raw or undercooked was frozen for its parasites before, by the supplier or here: the record shows it. */
final readonly class RawFishCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $citation = $case->rule(FurtherRules::class)->parasites;
        if ($citation === null || $case->product->animal !== Animal::Fish || !$case->product->advisory) {
            return;
        }
        $wasFrozen = false;
        foreach ($case->timeline->happenings as $event) {
            $wasFrozen = $wasFrozen || $event->is(Freeze::class)
                || ($event->detail instanceof Received && $event->detail->frozen);
            if ($event->detail instanceof Serve && !$wasFrozen) {
                $findings->add(
                    new Finding(
                        rule: 'house.raw_fish',
                        verdict: null,
                        citation: $citation,
                        message: 'house.raw_fish',
                        values: ['at' => $event->at],
                        from: $event->at,
                        evidence: [$event->id],
                    ),
                );

                return;
            }
        }
    }
}
