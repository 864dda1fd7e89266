<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Verjuicer\App\Platform\Problem\Problem;

/** The given event time is not possible. */
final class InvalidEventTime extends Problem
{
    private const UNREADABLE = 'when.problem.unreadable';

    public static function unreadable(string $given): self
    {
        return trim($given) === ''
            ? new self('when.problem.empty', [], 'when')
            : new self(self::UNREADABLE, ['{given}' => self::quoted($given)], 'when');
    }

    /** Whether it is no time at all, rather than one that cannot be. */
    public function isUnreadable(): bool
    {
        return $this->key === self::UNREADABLE;
    }

    public static function ahead(string $given): self
    {
        return new self('when.problem.ahead', ['{given}' => self::quoted($given)], 'when');
    }

    public static function tooLongAgo(string $given): self
    {
        return new self('when.problem.too_long_ago', ['{given}' => self::quoted($given)], 'when');
    }
}
