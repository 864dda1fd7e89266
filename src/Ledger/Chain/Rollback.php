<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

/** The chain of a site was put back to an earlier moment, from a backup. */
final readonly class Rollback
{
    /**
     * @param int $kept the last link that is still there
     * @param int $cut the last link there was before
     * @param int $savedAt seconds since 1970: when the database was saved to be put back
     */
    public function __construct(public int $kept, public int $cut, public int $savedAt)
    {
    }

    /** Whether a seal is of links that were put back: they are not in the chain any more, and that is on record. */
    public function explains(SignedSeal $seal): bool
    {
        return $seal->position > $this->kept && $seal->position <= $this->cut && $seal->at <= $this->savedAt;
    }
}
