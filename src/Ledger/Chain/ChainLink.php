<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

/** What is hashed of a link, after the 32 bytes of the hash before it (docs/format/proof.md). */
final readonly class ChainLink
{
    /**
     * @param string $recorded as "2026-11-27T05:14:23Z"
     * @param string $digest SHA-256 of the row in its canonical form, in hexadecimal
     */
    public static function words(
        string $siteId,
        int $position,
        string $kind,
        string $rowId,
        string $recorded,
        string $digest,
    ): string {
        return implode("\n", ['verjuicer-link/2', $siteId, $position, $kind, $rowId, $recorded, $digest]);
    }
}
