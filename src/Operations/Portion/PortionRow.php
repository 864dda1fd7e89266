<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Portion;

use Symfony\Component\Uid\Uuid;

/** One portion to be split off: what it is in, how much, how deep, under which tag. */
final readonly class PortionRow
{
    public function __construct(
        public Uuid $id,
        public int $tag,
        public int $grams,
        public string $container,
        public ?int $depthMm,
    ) {
    }
}
