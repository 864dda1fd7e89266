<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Verjuicer\App\Platform\Progress\Remaining;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** A file that was handed over to be taken in, and what came of it. */
final readonly class Import
{
    /**
     * @param string $mapping JSON: how a logger's table is read
     * @param int|null $added null until it is finished
     * @param string|null $problem why nothing of it was taken in
     * @param int $done batches so far, of so many in all; none of it counts until all of it is in
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
        public int $done,
        public ?int $total,
    ) {
    }

    /** How long it will take yet, by what was done since it was handed over; null before anything was. */
    public function left(Instant $now): ?Span
    {
        return Remaining::of($this->at, $this->done, $this->total, $now);
    }
}
