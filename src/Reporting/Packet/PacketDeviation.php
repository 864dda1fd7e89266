<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Verjuicer\Core\Assess\ActionTaken;

/** A deviation or gap of one batch, with the corrective actions recorded for it. */
final readonly class PacketDeviation
{
    /**
     * @param int $number within the volume, from 1
     * @param string $batchId UUID
     * @param string $batch tag, product and code
     * @param int $pieces of the batch
     * @param list<ActionTaken> $actions for its rule
     * @param bool $isOpen whether no later action or stage resolved it
     */
    public function __construct(
        public int $number,
        public string $batchId,
        public string $batch,
        public int $pieces,
        public PacketFinding $finding,
        public array $actions,
        public bool $isOpen,
    ) {
    }
}
