<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** Facts about a piece of meat when it is read, for judging whether the reading is plausible. */
final readonly class ReadingContext
{
    /**
     * @param list<TemperatureUnit> $units the site works in, and this batch was read in
     * @param bool $isFrozen whether it is in a freezer, thaws, or came frozen
     * @param array{Temperature, Instant}|null $sameSpot the reading before it of its piece and spot
     * @param list<array{Temperature, Instant}> $otherSpots the reading before it of each other spot of its piece
     */
    public function __construct(
        public array $units,
        public bool $isFrozen = false,
        public ?array $sameSpot = null,
        public array $otherSpots = [],
    ) {
    }
}
