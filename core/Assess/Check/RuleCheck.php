<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Findings;

/** One rule of the record, or one house limit. It reports, and never throws because of bad food. */
interface RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void;
}
