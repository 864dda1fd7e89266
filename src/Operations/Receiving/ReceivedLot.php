<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Receiving;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\Core\Measure\Temperature;

/** One lot of a delivery as it was written down at the door. */
final readonly class ReceivedLot
{
    /**
     * @param int|null $cents the price of all of it
     * @param string|null $useBy a day, 2026-11-25
     * @param string|null $reason why it was refused, or accepted all the same
     * @param string $place where it went; empty where nobody said
     */
    public function __construct(
        public Uuid $id,
        public Product $product,
        public string $number,
        public int $pieces,
        public int $grams,
        public ?int $cents,
        public bool $isFrozen,
        public ?Temperature $temp,
        public ?string $thermometer,
        public ?string $useBy,
        public bool $isAccepted,
        public ?string $reason,
        public string $place,
    ) {
    }
}
