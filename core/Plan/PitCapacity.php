<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** A pit, and how much of meat it takes. */
final readonly class PitCapacity
{
    /** @param int|null $grams null if unknown */
    public function __construct(public string $name, public ?int $grams)
    {
    }
}
