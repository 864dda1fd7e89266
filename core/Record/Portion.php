<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

/** What makes a record that of a portion: the batch it was split off and what it is in. */
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
