<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\Core\Measure\Instant;

/** A signature under the sheet of a day. */
final readonly class DailyLogSignature
{
    /**
     * @param int $position of the last link it is about
     * @param Instant|null $until end of the signed time, if the day was not over
     * @param array<string, string> $reasons by "batch id/rule"
     * @param list<string> $breaks faults of the chain at the time of signing, in words
     * @param list<SignedBatchText> $said
     */
    public function __construct(
        public Instant $at,
        public string $by,
        public string $accountId,
        public string $name,
        public int $position,
        public string $digest,
        public ?Instant $until,
        public array $reasons,
        public array $breaks,
        public array $said,
    ) {
    }
}
