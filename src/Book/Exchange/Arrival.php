<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Product;

/** A lot that came in, and what the batches of a file took from it. */
final class Arrival
{
    public int $pieces = 0;

    public int $grams = 0;

    public function __construct(
        public readonly Received $received,
        public readonly Instant $at,
        public readonly Product $product,
    ) {
    }
}
