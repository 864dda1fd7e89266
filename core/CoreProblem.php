<?php

declare(strict_types=1);

namespace Verjuicer\Core;

/** Marks every problem the core can throw; food that breaks a rule is never one, it is a finding. */
interface CoreProblem extends \Throwable
{
}
