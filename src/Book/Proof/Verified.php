<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Proof;

use Verjuicer\Core\Measure\Instant;

/** Whether what is recorded of a site is what was recorded, as far as that was looked at, and when. */
final readonly class Verified
{
    /**
     * @param int $links of its chain
     * @param int $seals signed ones outside the database that were compared
     * @param list<string> $breaks what does not hold, in words; empty where all does
     */
    public function __construct(public Instant $at, public int $links, public int $seals, public array $breaks)
    {
    }

    public function holds(): bool
    {
        return $this->breaks === [];
    }
}
