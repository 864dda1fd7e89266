<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Verjuicer\Core\Measure\Instant;

/** Whether a site's records are unaltered, how far that was checked, and when. */
final readonly class VerificationResult
{
    /**
     * @param int $links of its chain
     * @param int $seals signed ones outside the database that were compared
     * @param list<string> $breaks faults, in words; empty if there are none
     * @param list<string> $notes faults that were explained, in words
     * @param bool $hasKey whether the key is here that the chain says it is sealed with; where not, `$breaks` say so
     */
    public function __construct(
        public Instant $at,
        public int $links,
        public int $seals,
        public array $breaks,
        public array $notes = [],
        public bool $hasKey = true,
    ) {
    }

    public function holds(): bool
    {
        return $this->breaks === [];
    }
}
