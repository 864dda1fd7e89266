<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

/** Lanes, and the batches that have none to show. */
final readonly class LaneList
{
    /**
     * @param list<Lane> $lanes
     * @param list<UnreadableLane> $unreadable
     */
    public function __construct(public array $lanes, public array $unreadable)
    {
    }
}
