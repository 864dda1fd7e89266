<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\OfflineEntryTime;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/** What somebody wants to record of a batch, before it is. */
final readonly class Draft
{
    /**
     * @param Uuid $id made by the client, so that a retry is kept once
     * @param string|null $replaces the id of the event it puts right or takes back
     * @param bool $isSpotOpen whether it is at a spot nobody named
     * @param bool $isSpotNew whether its spot was never read before, and is added on purpose
     * @param int|null $ofPiece the piece it is about, where what it says is about a whole batch: the piece goes its own
     *     way
     * @param bool $isPieceOpen whether it is of a piece nobody named
     * @param string|null $by what wrote it down by itself; null where it is whoever keeps it
     */
    public function __construct(
        public Uuid $id,
        public Detail $detail,
        public Instant $at,
        public ?string $reason = null,
        public ?string $replaces = null,
        public bool $isSpotOpen = false,
        public bool $isSpotNew = false,
        public ?int $ofPiece = null,
        public bool $isPieceOpen = false,
        public ?string $by = null,
    ) {
    }

    public function because(string $reason): self
    {
        $all = $this->reason === null ? $reason : $this->reason.', '.$reason;

        return new self(
            $this->id,
            $this->detail,
            $this->at,
            $all,
            $this->replaces,
            $this->isSpotOpen,
            $this->isSpotNew,
            $this->ofPiece,
            $this->isPieceOpen,
            $this->by,
        );
    }

    public function atNewSpot(): self
    {
        return new self(
            $this->id,
            $this->detail,
            $this->at,
            $this->reason,
            $this->replaces,
            $this->isSpotOpen,
            true,
            $this->ofPiece,
            $this->isPieceOpen,
            $this->by,
        );
    }

    /** With what it left open filled in. */
    public function with(Detail $detail): self
    {
        return new self(
            $this->id,
            $detail,
            $this->at,
            $this->reason,
            $this->replaces,
            ofPiece: $this->ofPiece,
            by: $this->by,
        );
    }

    /** @param bool $isOffline whether it was made without a network, and sent later */
    public function event(string $initials, bool $isOffline = false): Event
    {
        return new Event(
            $this->id->toRfc4122(),
            $this->at,
            $this->by ?? $initials,
            $this->detail,
            $this->replaces,
            $this->reason,
            extensions: $isOffline ? [OfflineEntryTime::FIELD => true] : [],
        );
    }
}
