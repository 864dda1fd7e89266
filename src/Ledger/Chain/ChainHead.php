<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\Core\Measure\Instant;

/** How far a site is as a write begins. */
final readonly class ChainHead
{
    /**
     * @param Instant|null $last when the last link was recorded; null before the first
     * @param string|null $opened the day that is open, as "2026-11-27"; null before one was closed
     */
    public function __construct(public ?Instant $last, public ?string $opened)
    {
    }
}
