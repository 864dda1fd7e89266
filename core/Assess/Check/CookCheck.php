<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Findings;

/** Every piece, at its coldest spot that was read, reached a row of its cooking rule. */
final readonly class CookCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->cooks() as $outcome) {
            foreach ($outcome->findings as $finding) {
                $findings->add($finding);
            }
            foreach ($outcome->countdowns as $countdown) {
                $findings->countdown($countdown);
            }
        }
    }
}
