<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/** Readings by what the checks of their thermometers say of them. */
final readonly class SortedReadings
{
    /**
     * @param list<Reading> $believed all but the suspect ones
     * @param list<string> $suspectIds
     * @param list<Reading> $unchecked by a thermometer that was never checked
     * @param list<Reading> $overdue by one whose last check was longer ago than the house allows
     * @param int $uncheckedCount how many, those an abridged record left out with them
     * @param int $overdueCount the same
     */
    public function __construct(
        public array $believed,
        public array $suspectIds,
        public array $unchecked,
        public array $overdue,
        public int $uncheckedCount,
        public int $overdueCount,
    ) {
    }
}
