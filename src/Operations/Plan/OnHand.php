<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Ledger\Lot\LotOnHand;

/** What there is of a product: in the cold, frozen, and what it cost last. */
final readonly class OnHand
{
    /** @param list<LotOnHand> $lots with something left, the use-by that comes first at the top */
    private function __construct(
        public array $lots,
        public int $grams,
        public int $frozenGrams,
        public ?int $centsAKg,
        public ?string $supplier,
    ) {
    }

    /**
     * @param list<LotOnHand> $lots
     * @param array{cents: int|null, supplier: string}|null $bought last
     */
    public static function of(array $lots, ?array $bought): self
    {
        $grams = $frozen = 0;
        foreach ($lots as $lot) {
            $isFrozen = ($lot->whereabouts()->type ?? ($lot->lot->isFrozen ? 'freeze' : '')) === 'freeze';
            $grams += $lot->gramsLeft;
            $frozen += $isFrozen ? $lot->gramsLeft : 0;
        }

        return new self($lots, $grams, $frozen, $bought['cents'] ?? null, $bought['supplier'] ?? null);
    }

    /** Whether the meat for a dish has to come out of the freezer. */
    public function isFrozenFor(int $grams): bool
    {
        return $this->frozenGrams > 0 && $this->grams - $this->frozenGrams < $grams;
    }

    /** g that have to be bought. */
    public function shortOf(int $grams): int
    {
        return max(0, $grams - $this->grams);
    }
}
