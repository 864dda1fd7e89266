<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;

/** The result of one rule, from best to worst. Absence of proof is never `Met`. */
enum Verdict: string
{
    case Met = 'met';
    case Stopped = 'stopped';
    case Running = 'running';
    case NotShown = 'not_shown';
    case Broken = 'broken';

    public function isWorseThan(self $other): bool
    {
        return $this->rank() > $other->rank();
    }

    public function worseOf(self $other): self
    {
        return $other->isWorseThan($this) ? $other : $this;
    }

    /** The least verdict while more entries can come, and once none can. */
    public static function unproven(bool $open): self
    {
        return $open ? self::Running : self::NotShown;
    }

    /** The verdict if all is well so far. */
    public static function allWell(bool $open): self
    {
        return $open ? self::Running : self::Met;
    }

    /** The verdict on a way that is over and took at least and at most so long. */
    public static function ofElapsed(DurationBounds $elapsed, Span $limit): self
    {
        return match (true) {
            !$elapsed->greatest->isLongerThan($limit) => self::Met,
            $elapsed->least->isLongerThan($limit) => self::Broken,
            default => self::NotShown,
        };
    }

    private function rank(): int
    {
        // Declared from best to worst.
        return (int) array_search($this, self::cases(), true);
    }
}
