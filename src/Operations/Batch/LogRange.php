<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Record\Event;

/** Readings of one track that were taken back together. */
final readonly class LogRange
{
    public string $track;

    /** @param int $count of them, from the first to the last by time */
    public function __construct(public int $count, int $piece, string $spot, public Event $from, public Event $to)
    {
        $this->track = $piece.'/'.$spot;
    }
}
