<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/** The composition of meat, as fractions of its mass. */
final readonly class Composition
{
    public function __construct(public float $water, public float $protein, public float $fat, public float $ash)
    {
    }

    public static function lean(): self
    {
        return new self(0.74, 0.215, 0.035, 0.01);
    }

    /** Shoulder, brisket, ribs. */
    public static function marbled(): self
    {
        return new self(0.66, 0.185, 0.145, 0.01);
    }
}
