<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\ChannelTarget;

/** Where a channel is to be. */
final readonly class PlacementTarget
{
    private function __construct(
        public ChannelTarget $target,
        public ?string $pitId = null,
        public ?string $place = null,
        public ?string $batchId = null,
        public int $piece = 1,
        public string $spot = 'core',
    ) {
    }

    /** What a choice of the form says: "pit:…", "batch:…", "place:…", "none"; null where it says nothing known. */
    public static function chosen(string $choice, int $piece, string $spot): ?self
    {
        [$what, $which] = explode(':', $choice, 2) + [1 => ''];

        return match (ChannelTarget::tryFrom($what)) {
            ChannelTarget::None => new self(ChannelTarget::None),
            ChannelTarget::Pit => Uuid::isValid($which) ? new self(ChannelTarget::Pit, pitId: $which) : null,
            ChannelTarget::Batch => Uuid::isValid($which)
                ? new self(ChannelTarget::Batch, batchId: $which, piece: $piece, spot: $spot === '' ? 'core' : $spot)
                : null,
            ChannelTarget::Place => $which === '' ? null : new self(ChannelTarget::Place, place: $which),
            null => null,
        };
    }

    /** The choice that says where it is now. */
    public static function choiceOf(?Assignment $assignment): string
    {
        return match ($assignment?->target) {
            ChannelTarget::Pit => 'pit:'.$assignment->pitId,
            ChannelTarget::Batch => $assignment->isOver ? 'none' : 'batch:'.$assignment->batchId,
            ChannelTarget::Place => 'place:'.$assignment->place,
            default => 'none',
        };
    }
}
