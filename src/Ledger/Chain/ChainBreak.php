<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

/** The first place at which the chain of a site does not hold. */
final readonly class ChainBreak
{
    /**
     * @param string $what the key of a sentence under `proof.what`
     * @param string $detail the changed values, if known
     */
    public function __construct(
        public string $what,
        public int $position,
        public string $kind,
        public string $rowId,
        public string $detail = '',
    ) {
    }
}
