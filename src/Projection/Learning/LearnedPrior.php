<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Learning;

use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Learning\LearningSubject;
use Verjuicer\Core\Measure\Instant;

/** A version of the values learned for a product, a pit or a method. */
final readonly class LearnedPrior
{
    /** @param array<string, string> $batches the codes of those it came of, by id */
    public function __construct(
        public string $id,
        public LearningSubject $about,
        public string $subject,
        public Instant $madeAt,
        public LearnedParameters $learned,
        public array $batches,
        public ?Instant $withdrawnAt,
        public ?string $withdrawnBy,
        public bool $isInForce,
    ) {
    }
}
