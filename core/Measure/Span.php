<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** A length of elapsed time in whole seconds; the difference of two instants, so right across every clock change. */
final readonly class Span
{
    private function __construct(public int $seconds)
    {
    }

    public static function ofSeconds(int $seconds): self
    {
        return new self($seconds);
    }

    public static function ofMinutes(int $minutes): self
    {
        return new self(60 * $minutes);
    }

    public static function ofHours(int $hours): self
    {
        return new self(3600 * $hours);
    }

    public static function between(Instant $from, Instant $to): self
    {
        return new self($to->epoch - $from->epoch);
    }

    public function isLongerThan(self $other): bool
    {
        return $this->seconds > $other->seconds;
    }
}
