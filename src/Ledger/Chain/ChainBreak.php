<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

/** The first place at which the chain of a site does not hold. */
final readonly class ChainBreak
{
    /** @param 'missing_link'|'missing_row'|'altered'|'not_chained'|'seal' $what */
    public function __construct(public string $what, public int $position, public string $kind, public string $rowId)
    {
    }
}
