<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** A weight in micrograms, fine enough that no record's kilograms are rounded across a limit. */
final readonly class Weight
{
    private function __construct(public int $micrograms)
    {
    }

    public static function ofGrams(int $grams): self
    {
        return new self(1_000_000 * $grams);
    }

    public static function ofMicrograms(int $micrograms): self
    {
        return new self($micrograms);
    }

    public function isUnder(self $other): bool
    {
        return $this->micrograms < $other->micrograms;
    }
}
