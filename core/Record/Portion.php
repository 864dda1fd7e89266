<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

/** Makes a record one of a portion: the batch it was split from, and its container. */
final readonly class Portion
{
    /** @param int|null $depthMm of the food in its container */
    public function __construct(
        public string $of,
        public ?int $grams,
        public ?string $container,
        public ?int $depthMm,
    ) {
    }
}
