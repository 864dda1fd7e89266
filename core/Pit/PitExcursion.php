<?php

declare(strict_types=1);

namespace Verjuicer\Core\Pit;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** A time for which a pit was too hot or too cold for its set point; open where no reading shows it back. */
final readonly class PitExcursion
{
    public function __construct(
        public Instant $from,
        public Instant $to,
        public bool $isOpen,
        public bool $isHot,
        public Temperature $worst,
        public Temperature $set,
    ) {
    }
}
