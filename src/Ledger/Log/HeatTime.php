<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** How long a batch was on the heat. */
final readonly class HeatTime
{
    /**
     * @param int|null $grams of one piece
     * @param Temperature|null $set of the pit, where the cook said it
     * @param string|null $pit it went into
     */
    public function __construct(
        public string $batchId,
        public int $pieces,
        public ?int $grams,
        public Instant $loaded,
        public ?Instant $pulled,
        public ?Temperature $set,
        public ?string $wrap,
        public ?string $pit,
    ) {
    }
}
