<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

/** What makes a batch a portion: the one it was split off, how far it shares that one's record, and what it is in. */
final readonly class Portioned
{
    /**
     * @param int      $sharesUpTo the place of the event that divided the parent
     * @param int|null $depthMm    of the food in its container
     */
    public function __construct(public Batch $parent, public int $sharesUpTo, public string $letter, public int $grams, public string $container, public ?int $depthMm)
    {
    }
}
