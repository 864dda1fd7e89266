<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Verjuicer\App\Catalogue\Product\Product;

/** The facts of a batch at its beginning. */
final readonly class BatchPlan
{
    /**
     * @param int|null $rawGrams of one piece
     * @param list<int>|null $pieceNumbers the pieces it holds, where it was taken in as pieces of another
     */
    public function __construct(
        public Product $product,
        public int $tag,
        public int $pieces,
        public ?int $rawGrams,
        public bool $isStuffed = false,
        public bool $isWild = false,
        public bool $hasAdvisory = false,
        public ?PortionOrigin $portioned = null,
        public ?array $pieceNumbers = null,
    ) {
    }
}
