<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\App\Ledger\Batch\Batch;

/**
 * The daily log's text about a batch at the time of signing: it stays when a later edition of the rules judges the
 * batch again.
 */
final readonly class SignedBatchText
{
    /** @param list<string> $findings each as a line: the rule, its word, its sentence and its citation */
    public function __construct(
        public string $id,
        public string $batch,
        public string $verdict,
        public string $rules,
        public string $zone,
        public array $findings,
    ) {
    }

    /**
     * @param array{id: string, batch: string, verdict: string, rules: string, zone: string,
     *     findings: list<string>} $said
     */
    public static function of(array $said): self
    {
        return new self(...$said);
    }

    public function isOf(Batch $batch): bool
    {
        return $this->id === $batch->id->toRfc4122();
    }
}
