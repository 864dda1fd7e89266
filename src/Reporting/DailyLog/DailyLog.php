<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/**
 * One day of a site, as a manager verifies it: batches, readings taken and missed, open deviations, deliveries and
 * discards.
 */
final readonly class DailyLog
{
    /**
     * @param list<DailyLogBatch> $batches
     * @param list<array{label: string, at: Instant, by: string, method: string, read: string, passed: bool}> $checks
     * @param list<Lot> $lots
     * @param list<array{at: Instant, by: string, why: string|null, reason: string|null, grams: int|null, batch: string,
     *     id: string}> $disposals
     * @param list<DailyLogSignature> $signatures the latest first
     * @param list<array{at: Instant, recorded_at: Instant, by: string, batch: string, id: string,
     *     type: string}> $amendments entries about the day recorded after the last signature
     * @param Instant $signsFrom from when the whole day can be signed
     */
    public function __construct(
        public LocalDate $day,
        public Instant $from,
        public Instant $to,
        public Instant $signsFrom,
        public array $batches,
        public array $checks,
        public array $lots,
        public array $disposals,
        public ?Seal $seal,
        public array $signatures,
        public array $amendments,
    ) {
    }

    /**
     * @return list<array{key: string, batch: DailyLogBatch, rule: string}> deviations that need a reason, by "batch
     *     id/rule"
     */
    public function open(): array
    {
        $open = [];
        foreach ($this->batches as $batch) {
            foreach ($batch->unreasoned() as $rule) {
                $open[] = ['key' => $batch->batch->id->toRfc4122().'/'.$rule, 'batch' => $batch, 'rule' => $rule];
            }
        }

        return $open;
    }

    /** @return array{entries: int, late: int, replaced: int, imported: int} */
    public function counts(): array
    {
        $marked = array_merge(...array_map(static fn (DailyLogBatch $one): array => $one->marked, $this->batches));
        $of = static fn (string $mark): int => \count(
            array_filter($marked, static fn (FlaggedEntry $one): bool => \in_array($mark, $one->marks(), true)),
        );

        return [
            'entries' => array_sum(array_map(static fn (DailyLogBatch $one): int => $one->entries, $this->batches)),
            'late' => $of('late'),
            'replaced' => $of('replaced'),
            'imported' => $of('imported'),
        ];
    }

    /** @return list<DailyLogSignature> those under the whole day, each person once, the first first */
    public function whole(): array
    {
        $whole = [];
        foreach (array_reverse($this->signatures) as $signature) {
            if ($signature->until === null) {
                $whole[$signature->accountId] ??= $signature;
            }
        }

        return array_values($whole);
    }
}
