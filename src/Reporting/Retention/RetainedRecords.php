<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Retention;

use Verjuicer\Core\Measure\LocalDate;

/** One kind of record: how many there are, from when to when, and until when the last of them must be kept. */
final readonly class RetainedRecords
{
    /** @param int $past how many are older than the site must keep them: they stay all the same */
    public function __construct(
        public string $kind,
        public int $count,
        public ?LocalDate $first,
        public ?LocalDate $last,
        public ?LocalDate $until,
        public int $past,
    ) {
    }
}
