<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/**
 * A summary of the readings an abridged record omits between two retained readings of a track, as far as checks need
 * it.
 */
final readonly class OmittedReadings
{
    /**
     * @param int $count how many readings of the track
     * @param int $gap seconds: the longest between two of them in a row, both kept ones with them
     * @param array<string, int> $lowest ninetieths of a degree Celsius, by unit
     * @param int|null $before seconds since 1970: the last of any track before the kept one
     * @param int $impossible pairs in a row that no meat can do, both kept ones with them
     * @param int $unchecked of those left out, by a thermometer that was never checked
     * @param int $overdue of those left out, by one whose check was too long ago
     */
    public function __construct(
        public int $count,
        public int $gap,
        public array $lowest,
        public ?int $before,
        public int $impossible,
        public int $unchecked,
        public int $overdue,
    ) {
    }
}
