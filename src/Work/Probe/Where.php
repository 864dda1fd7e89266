<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Probe;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\Target;

/** Where a channel is to be. */
final readonly class Where
{
    private function __construct(
        public Target $target,
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

        return match (Target::tryFrom($what)) {
            Target::None => new self(Target::None),
            Target::Pit => Uuid::isValid($which) ? new self(Target::Pit, pitId: $which) : null,
            Target::Batch => Uuid::isValid($which)
                ? new self(Target::Batch, batchId: $which, piece: $piece, spot: $spot === '' ? 'core' : $spot)
                : null,
            Target::Place => $which === '' ? null : new self(Target::Place, place: $which),
            null => null,
        };
    }

    /** The choice that says where it is now. */
    public static function choiceOf(?Assignment $assignment): string
    {
        return match ($assignment?->target) {
            Target::Pit => 'pit:'.$assignment->pitId,
            Target::Batch => $assignment->isOver ? 'none' : 'batch:'.$assignment->batchId,
            Target::Place => 'place:'.$assignment->place,
            default => 'none',
        };
    }
}
