<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Kinds\Note;

/** Names food that was put together with another batch's: the older date counts for all of it. */
final readonly class MixedCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->timeline->happenings as $event) {
            $note = $event->detail;
            if ($note instanceof Note && $note->mixedFrom !== null) {
                $findings->add(
                    new Finding(
                        rule: 'house.mixed',
                        verdict: null,
                        citation: $case->rules->house()->citation,
                        message: 'house.mixed',
                        values: ['batch' => $note->mixedFrom, 'use_by' => $note->useBy ?? '–', 'at' => $event->at],
                        from: $event->at,
                        evidence: [$event->id],
                    ),
                );
            }
        }
    }
}
