<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** From guests to raw weight: the amount to buy so that it is enough even with a low yield. */
final readonly class PurchaseNeed
{
    private const MOST_PIECES = 500;

    /**
     * @param int $served g on plates
     * @param int $least g raw, where much is left of it
     * @param int $most g raw, at a low yield: the planned amount
     */
    private function __construct(
        public int $served,
        public int $least,
        public int $most,
        public int $pieces,
    ) {
    }

    /**
     * @param int $portions plates with it
     * @param int $grams g on one
     * @param int $gramsOfOne g of a piece as it is bought
     */
    public static function of(int $portions, int $grams, YieldShares $shares, int $gramsOfOne): self
    {
        $served = $portions * $grams;
        $left = $shares->served();
        $most = (int) ceil($served / max(0.05, $left->least));

        return new self(
            $served,
            (int) ceil($served / max(0.05, $left->most)),
            $most,
            min(self::MOST_PIECES, max(1, (int) ceil($most / max(1, $gramsOfOne)))),
        );
    }
}
