<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;

/** One thing to be done about one batch. */
final readonly class Due
{
    /**
     * @param Instant|null $deadline null for what is to be settled at once: a breach on record
     * @param string $message key of what to do
     * @param string $gate the temperature it names, if it names one
     * @param int $more how many more of its kind the batch has
     */
    public function __construct(
        public Lane $lane,
        public string $rule,
        public string $kind,
        public ?Instant $deadline,
        public bool $isLate,
        public string $message,
        public string $gate,
        public ?Verdict $verdict = null,
        public int $more = 0,
    ) {
    }

    /** Where the entry is that settles it: 'unit' (all of a holding unit), 'round', 'actions' or the batch itself. */
    public function door(): string
    {
        return match (true) {
            $this->kind === 'action' => 'actions',
            $this->rule === 'hot_hold' && \in_array($this->kind, ['check', 'unit', 'limit'], true) => 'unit',
            $this->kind === 'check'
                || ($this->kind === 'limit' && !\in_array($this->rule, ['time_control', 'date_mark'], true)) => 'round',
            default => 'batch',
        };
    }
}
