<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Procedure;

use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** A version of a procedure as it was written down. */
final readonly class ProcedureVersion
{
    /**
     * @param Instant|null $inForceFrom null of a draft
     * @param string $approvedBy the authority; '' where none approved it
     * @param string $reason why it was made
     */
    public function __construct(
        public string $id,
        public ProcedureKind $kind,
        public string $number,
        public int $version,
        public string $body,
        public ?Instant $inForceFrom,
        public bool $isWithdrawn,
        public string $approvedBy,
        public ?LocalDate $approvedOn,
        public string $approvalNumber,
        public string $reason,
        public string $by,
        public Instant $recordedAt,
    ) {
    }

    public function isApproved(): bool
    {
        return $this->approvedBy !== '' && $this->approvedOn !== null && $this->approvalNumber !== '';
    }

    /** Whether it is in force from then on: if an authority must approve it, once approved. */
    public function comesIntoForce(): bool
    {
        return $this->inForceFrom !== null
            && !$this->isWithdrawn
            && (!$this->kind->needsApproval() || $this->isApproved());
    }
}
