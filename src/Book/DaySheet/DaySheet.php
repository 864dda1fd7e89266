<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\DaySheet;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/**
 * One day of a site, as a manager verifies it: what was on, what was read and missed, what is open, what came in and
 * what was thrown away.
 */
final readonly class DaySheet
{
    /**
     * @param list<array{batch: Batch, verdict: string, readings: int, late: int, late_after: Span, zone: string,
     *     findings: list<array{finding: Finding, sentence: string}>, cautions: list<string>, open: list<string>,
     *     actions: list<ActionTaken>, runs_on: bool}> $batches
     * @param list<array{label: string, at: Instant, by: string, method: string, read: string, passed: bool}> $checks
     * @param list<Lot> $lots
     * @param list<array{at: Instant, by: string, what: string, batch: string, id: string}> $disposals
     * @param list<array{at: Instant, by: string, name: string, digest: string, reasons: array<string, string>,
     *     said: list<SaidOfBatch>}> $signatures
     * @param list<array{at: Instant, recorded_at: Instant, by: string, batch: string, id: string,
     *     type: string}> $amendments
     */
    public function __construct(
        public LocalDate $day,
        public Instant $from,
        public Instant $to,
        public array $batches,
        public array $checks,
        public array $lots,
        public array $disposals,
        public ?Seal $seal,
        public array $signatures,
        public array $amendments,
    ) {
    }

    /** @return list<string> "batch id/rule" of everything that nobody has settled */
    public function open(): array
    {
        $open = [];
        foreach ($this->batches as $row) {
            foreach ($row['open'] as $rule) {
                $open[] = $row['batch']->id->toRfc4122().'/'.$rule;
            }
        }

        return $open;
    }
}
