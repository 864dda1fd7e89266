<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Finding\Verdict;

/** Whether the record does not show, or not yet, what the code requires of the cook: such food is never called done. */
final readonly class Undercooked
{
    public static function is(Assessment $assessment): bool
    {
        return ($assessment->rulesJudged['cook'] ?? Verdict::Met) !== Verdict::Met;
    }
}
