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

    public function grams(): int
    {
        return intdiv($this->micrograms, 1_000_000);
    }

    /** As the open format writes it. */
    public function kilograms(): int|float
    {
        return $this->micrograms / 1_000_000_000;
    }

    public function isUnder(self $other): bool
    {
        return $this->micrograms < $other->micrograms;
    }
}
