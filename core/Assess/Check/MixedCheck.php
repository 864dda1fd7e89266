<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Record\Extras;

/** Names food that was put together with another batch's: the older date counts for all of it. */
final readonly class MixedCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->timeline->events as $event) {
            $extras = new Extras($event);
            $from = $extras->text('mixed_from');
            if ($from !== null) {
                $findings->add(new Finding(
                    'house.mixed',
                    null,
                    $case->rules->house->citation,
                    'house.mixed',
                    ['batch' => $from, 'use_by' => $extras->text('use_by') ?? '–', 'at' => $event->at],
                    from: $event->at,
                    evidence: [$event->id],
                ));
            }
        }
    }
}
