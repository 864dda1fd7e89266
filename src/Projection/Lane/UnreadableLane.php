<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

/** A batch whose lane could not be made: its record is whole, and can be opened. */
final readonly class UnreadableLane
{
    public function __construct(public string $batchId, public int $tag, public string $product)
    {
    }
}
