<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/** Readings grouped by the accuracy of their thermometers. */
final readonly class SortedReadings
{
    /**
     * @param Trace $believed all but the suspect ones
     * @param list<string> $suspectIds
     * @param DiscountedReadings $unchecked by a thermometer that was never checked
     * @param DiscountedReadings $overdue by one whose last check was longer ago than the house allows
     */
    public function __construct(
        public Trace $believed,
        public array $suspectIds,
        public DiscountedReadings $unchecked,
        public DiscountedReadings $overdue,
    ) {
    }
}
