<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\RecordedProduct;

/** A received lot, and the amounts that batches of a file took from it. */
final class ImportedLot
{
    public int $pieces = 0;

    public int $grams = 0;

    public function __construct(
        public readonly Received $received,
        public readonly Instant $at,
        public readonly RecordedProduct $product,
    ) {
    }
}
