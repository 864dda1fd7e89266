<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Finding\Verdict;

/** Whether the record does not, or not yet, document the cooking requirement. Such food is never called done. */
final readonly class Undercooked
{
    public static function is(Assessment $assessment): bool
    {
        return ($assessment->rulesJudged['cook'] ?? Verdict::Met) !== Verdict::Met;
    }
}
