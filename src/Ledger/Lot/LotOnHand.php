<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

use Verjuicer\App\Ledger\Log\SiteEvent;

/** A lot with what is left of it and where that is. */
final readonly class LotOnHand
{
    /** @param list<SiteEvent> $history by time */
    public function __construct(public Lot $lot, public int $piecesLeft, public int $gramsLeft, public array $history)
    {
    }

    public function hasAnyLeft(): bool
    {
        return $this->lot->isAccepted && $this->piecesLeft > 0;
    }

    /** Where it is now, and how: the last move. */
    public function whereabouts(): ?SiteEvent
    {
        $last = null;
        foreach ($this->history as $event) {
            if (\in_array($event->type, ['cold_hold', 'freeze', 'thaw'], true)) {
                $last = $event;
            }
        }

        return $last;
    }
}
