<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

/**
 * Makes a batch a portion: the batch it was split from, the shared part of the record, and its kind: some of the mass,
 * or whole pieces.
 */
final readonly class PortionOrigin
{
    /**
     * @param int $sharesUpTo the place of the event that divided the parent
     * @param int|null $depthMm of the food in its container
     * @param list<int>|null $pieceNumbers the pieces that went their own way as it; null where it is a part of the mass
     */
    public function __construct(
        public Batch $parent,
        public int $sharesUpTo,
        public string $letter,
        public ?int $grams = null,
        public ?string $container = null,
        public ?int $depthMm = null,
        public ?array $pieceNumbers = null,
    ) {
    }
}
