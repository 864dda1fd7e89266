<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Packet;

use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Assess\Finding\Finding;

/** A breach or gap of a packet, and what was done about it. */
final readonly class WrongThing
{
    /**
     * @param string $id of the batch
     * @param string $batch in words
     * @param list<ActionTaken> $actions against this rule
     * @param bool $isOpen whether nothing settled it since
     */
    public function __construct(
        public string $id,
        public string $batch,
        public Finding $finding,
        public string $sentence,
        public array $actions,
        public bool $isOpen,
    ) {
    }
}
