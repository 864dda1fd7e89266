<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/** The result of checking a file of proof. */
final class ProofReport
{
    /** @var list<array{fault: ProofFault, of: string}> faults, and where */
    public array $faults = [];

    public string $site = '';
    public string $siteId = '';
    public string $made = '';
    public string $key = '';
    public int $batches = 0;
    public int $events = 0;
    public int $links = 0;
    public int $seals = 0;

    /** How many pages of a packet were compared with its records; 0 for packets of early versions. */
    public int $pages = 0;

    /** How many rows were recorded before links of form 2: the application alone can check those. */
    public int $older = 0;

    public function add(ProofFault $fault, string $of = ''): void
    {
        $this->faults[] = ['fault' => $fault, 'of' => $of];
    }

    public function holds(): bool
    {
        return $this->faults === [];
    }
}
