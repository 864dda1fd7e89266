<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** The least and the greatest elapsed time that a record allows. */
final readonly class DurationBounds
{
    private function __construct(public Span $least, public Span $greatest)
    {
    }

    /** Seconds; a negative least is none at all. */
    public static function ofSeconds(int $least, int $greatest): self
    {
        return new self(Span::ofSeconds(max(0, $least)), Span::ofSeconds(max(0, $greatest)));
    }
}
