<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Action;
use Verjuicer\Core\Event\Kinds\Inject;
use Verjuicer\Core\Event\Kinds\Spritz;

/** House limit: brine or spritz that touched raw meat is thrown away, and the record says so. */
final readonly class RawLeftoverCheck implements RuleCheck
{
    public const RULE = 'house.raw_leftover';

    public function judge(CaseFile $case, Findings $findings): void
    {
        $last = null;
        foreach ($case->timeline->happenings as $event) {
            if ($event->is(Inject::class, Spritz::class)) {
                $last = $event;
            } elseif ($event->detail instanceof Action && $event->detail->finding === self::RULE) {
                $last = null;
            }
        }
        if ($last !== null) {
            $findings->add(
                new Finding(
                    rule: self::RULE,
                    verdict: null,
                    citation: $case->rules->house()->citation,
                    message: 'house.raw_leftover_'.$last->kind()->name(),
                    values: ['at' => $last->at],
                    from: $last->at,
                    evidence: [$last->id],
                    options: ['house.throw_leftover'],
                ),
            );
        }
    }
}
