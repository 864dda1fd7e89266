<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Reminder;
use Verjuicer\Core\Measure\Instant;

/** What the page of a batch shows. */
final readonly class BatchView
{
    public Site $site;

    /**
     * @param array<string, string> $parts of HTML that look the same to everybody, by name
     * @param list<AbandonedSpot> $left
     * @param list<OpenAction> $actions worst first
     * @param list<Reminder> $reminders that still wait
     */
    public function __construct(
        public Batch $batch,
        public Instant $now,
        public Steps $steps,
        public array $parts,
        public array $left,
        public array $actions,
        public array $reminders,
    ) {
        $this->site = $batch->site;
    }
}
