<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

/** Notified of changes in the ledger. */
interface LedgerListener
{
    /**
     * Within the transaction: these batches changed, and every portion of them. It notes that and nothing else.
     *
     * @param non-empty-list<string> $batchIds
     */
    public function mark(string $siteId, array $batchIds): void;

    /**
     * After the commit: time to catch up. Saved entries stay saved: it never throws.
     *
     * @param non-empty-list<string> $batchIds
     */
    public function follow(string $siteId, array $batchIds): void;
}
