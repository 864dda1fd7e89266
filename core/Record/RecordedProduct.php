<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Measure\Weight;

/** The product being smoked, as far as rules need it. */
final readonly class RecordedProduct
{
    /**
     * @param Weight|null $rawWeight of one piece
     * @param int $pieces how many; not read where `pieceNumbers` names them
     * @param list<int>|null $pieceNumbers the pieces a record holds that was split off by pieces
     * @param list<Treatment> $treatments preserving treatments
     * @param array<string, mixed> $extensions unknown members: kept, ignored
     */
    public function __construct(
        public ?string $name,
        public Animal $animal,
        public Form $form,
        public Integrity $integrity,
        public ?Weight $rawWeight,
        public int $pieces,
        public bool $stuffed = false,
        public bool $wild = false,
        public bool $advisory = false,
        public ?array $pieceNumbers = null,
        public array $extensions = [],
        public array $treatments = [],
    ) {
    }

    /** How many pieces the record holds. */
    public function held(): int
    {
        return $this->pieceNumbers === null ? $this->pieces : \count($this->pieceNumbers);
    }

    /** Whether a piece is in the record; without piece numbers none is left out. */
    public function holds(int $piece): bool
    {
        return $this->pieceNumbers === null || \in_array($piece, $this->pieceNumbers, true);
    }
}
