<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;

/**
 * The result for one rule at one place, as facts. Its sentence is made in the interface from `message` and `values`.
 *
 * @phpstan-type Value Temperature|Threshold|Instant|LocalDate|Span|string|int
 */
final readonly class Finding
{
    /**
     * @param string $rule as named in `rules_judged`, or `house.…`, `thermometer.…` if it decides no verdict
     * @param Verdict|null $verdict null for a further finding: a caution that decides no verdict
     * @param string $message key of its sentence
     * @param array<string, Value> $values values of the sentence
     * @param string|null $track "1/core", or null where it is about the whole batch
     * @param Span|null $limit the time it is held against
     * @param Threshold|null $towards the temperature that must be reached, or kept
     * @param list<string> $evidence ids of the events it rests on
     * @param list<string> $options keys of possible actions, most careful first
     */
    public function __construct(
        public string $rule,
        public ?Verdict $verdict,
        public string $citation,
        public string $message,
        public array $values = [],
        public ?string $track = null,
        public ?Instant $from = null,
        public ?Instant $to = null,
        public ?DurationBounds $elapsed = null,
        public ?Span $limit = null,
        public ?Threshold $towards = null,
        public ?Instant $deadline = null,
        public array $evidence = [],
        public array $options = [],
        public bool $isUnderAdvisory = false,
    ) {
    }

    /** The same breach where it rests on suspect readings only: the record cannot show which is true. */
    public function restingOnSuspectReadings(): self
    {
        return new self(
            rule: $this->rule,
            verdict: Verdict::NotShown,
            citation: $this->citation,
            message: 'suspect.breach',
            values: $this->values,
            track: $this->track,
            from: $this->from,
            to: $this->to,
            elapsed: $this->elapsed,
            limit: $this->limit,
            towards: $this->towards,
            evidence: $this->evidence,
            options: ['thermometer.adjust', 'thermometer.recheck_food'],
        );
    }

    /** Whether it decides a verdict; else it is a further finding, by a house limit or about a thermometer. */
    public function isJudged(): bool
    {
        return $this->verdict !== null;
    }

    /** Whether it needs an action: not met or not documented. */
    public function isWrong(): bool
    {
        return $this->verdict === Verdict::Broken || $this->verdict === Verdict::NotShown;
    }
}
