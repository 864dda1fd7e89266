<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

/** What came of what was bought. A weight nobody wrote down is null, and never guessed. */
final readonly class BatchYield
{
    /** @param array<string, int|null> $weights grams, by step */
    public function __construct(public array $weights, public int $portions, public ?int $cents)
    {
    }

    public function hasAnything(): bool
    {
        return \count(array_filter($this->weights, static fn (?int $grams): bool => $grams !== null)) > 1;
    }

    /** In hundredths of what was bought, or raw where nothing says what was bought. */
    public function share(int $grams): ?int
    {
        $whole = $this->weights['bought'] ?? ($this->weights['raw'] ?? null);

        return $whole === null ? null : (int) round((100 * $grams) / $whole);
    }

    public function centsAPortion(): ?int
    {
        return $this->cents === null || $this->portions === 0 ? null : (int) round($this->cents / $this->portions);
    }

    public function centsAKilogram(): ?int
    {
        $served = $this->weights['served'] ?? null;

        return $this->cents === null || $served === null ? null : (int) round((1000 * $this->cents) / $served);
    }
}
