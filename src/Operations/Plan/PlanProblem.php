<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Platform\Problem\Problem;

/** A planned batch that cannot become a real one as it stands. */
final class PlanProblem extends Problem
{
    public static function noTag(): self
    {
        return new self('plan.problem.no_tag');
    }
}
