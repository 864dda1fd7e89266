<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Verjuicer\App\Platform\Problem\Problem;

final class PeopleProblem extends Problem
{
    /** @param 'login'|'initials'|'site' $field */
    public static function taken(string $field): self
    {
        return new self('people.problem.'.$field, [], $field);
    }

    public static function lastManager(): self
    {
        return new self('people.problem.last_manager');
    }

    public static function ownersOnly(): self
    {
        return new self('people.problem.owners_only');
    }

    public static function password(string $key): self
    {
        return new self($key, ['{least}' => (string) CommonPasswords::LEAST], 'password');
    }

    public static function tooManyTries(): self
    {
        return new self('who.problem.tries', [], 'current');
    }

    public static function wrongPassword(): self
    {
        return new self('people.problem.wrong', [], 'current');
    }
}
