<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

/** Whoever makes something out of the ledger is told what changed in it. */
interface LedgerListener
{
    /**
     * Within the transaction: these batches changed, and every portion of them. It notes that and nothing else.
     *
     * @param non-empty-list<string> $batchIds
     */
    public function mark(string $siteId, array $batchIds): void;

    /**
     * After the commit: time to catch up. What is kept stays kept, whatever becomes of it: nothing is thrown.
     *
     * @param non-empty-list<string> $batchIds
     */
    public function follow(string $siteId, array $batchIds): void;
}
