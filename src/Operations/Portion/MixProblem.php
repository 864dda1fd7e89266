<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Portion;

use Verjuicer\App\Platform\Problem\Problem;

/** Two portions that may not be put together. */
final class MixProblem extends Problem
{
    public static function noSuchTag(): self
    {
        return new self('mix.problem.tag');
    }

    public static function another(): self
    {
        return new self('mix.problem.another');
    }

    public static function unsound(): self
    {
        return new self('mix.problem.unsound');
    }

    public static function stage(): self
    {
        return new self('mix.problem.stage');
    }
}
