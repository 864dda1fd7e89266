<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Verjuicer\Core\Measure\Instant;

/** A file that was handed over to be taken in, and what came of it. */
final readonly class Import
{
    /**
     * @param string $mapping JSON: how a logger's table is read
     * @param int|null $added null until it is finished
     * @param string|null $problem why nothing of it was taken in
     */
    public function __construct(
        public string $id,
        public string $accountId,
        public string $by,
        public Instant $at,
        public ImportKind $what,
        public string $mapping,
        public ?Instant $finishedAt,
        public ?int $added,
        public ?int $known,
        public ?string $problem,
    ) {
    }
}
