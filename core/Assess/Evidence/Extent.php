<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/** How far readings reach, in ninetieths of a degree Celsius. */
final readonly class Extent
{
    /**
     * @param int $lowest PHP_INT_MAX where there is none
     * @param int $highest PHP_INT_MIN where there is none
     * @param int $step the most that lies between two in a row
     * @param bool $isOfOne whether one thermometer read all of them, or none that is named
     * @param bool $isWhole whether none was left out
     */
    private function __construct(
        public int $lowest,
        public int $highest,
        public int $step,
        public bool $isOfOne,
        public bool $isWhole,
    ) {
    }

    /** @param list<Reading> $readings in order */
    public static function of(array $readings): self
    {
        $lowest = \PHP_INT_MAX;
        $highest = \PHP_INT_MIN;
        $step = 0;
        $isOfOne = $isWhole = true;
        $label = $readings[0]->thermometer ?? null;
        $before = $readings[0]->level ?? 0;
        foreach ($readings as $reading) {
            $level = $reading->level;
            if ($level !== $before) {
                $moved = $level - $before;
                $before = $level;
                if ($moved > $step) {
                    $step = $moved;
                } elseif (-$moved > $step) {
                    $step = -$moved;
                }
            }
            if ($level < $lowest) {
                $lowest = $level;
            }
            if ($level > $highest) {
                $highest = $level;
            }
            if ($reading->thermometer !== $label) {
                $isOfOne = false;
            }
            if ($reading->leftOut !== null) {
                $isWhole = false;
            }
        }

        return new self($lowest, $highest, $step, $isOfOne, $isWhole);
    }
}
