<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Own;

use Verjuicer\Core\Forecast\Belief\Learned;
use Verjuicer\Core\Forecast\Own\LessonOf;
use Verjuicer\Core\Measure\Instant;

/** A version of what own cooks of a product, on a pit or by a method come to. */
final readonly class OwnPrior
{
    /** @param array<string, string> $batches the codes of those it came of, by id */
    public function __construct(
        public string $id,
        public LessonOf $about,
        public string $subject,
        public Instant $madeAt,
        public Learned $learned,
        public array $batches,
        public ?Instant $withdrawnAt,
        public ?string $withdrawnBy,
        public bool $isInForce,
    ) {
    }
}
