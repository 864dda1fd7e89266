<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Temperature;

/** How far readings reach, in ninetieths of a degree Celsius. */
final readonly class TemperatureRange
{
    /**
     * @param int $lowest PHP_INT_MAX where there is none
     * @param int $highest PHP_INT_MIN where there is none
     * @param int $step the most that lies between two in a row
     */
    private function __construct(public int $lowest, public int $highest, public int $step)
    {
    }

    /** @param list<Temperature> $temps in order */
    public static function of(array $temps): self
    {
        $lowest = \PHP_INT_MAX;
        $highest = \PHP_INT_MIN;
        $step = 0;
        $last = null;
        $before = $temps[0]->ninetieths ?? 0;
        foreach ($temps as $temp) {
            // A temperature is one object however often it was read.
            if ($temp === $last) {
                continue;
            }
            $last = $temp;
            $level = $temp->ninetieths;
            $moved = $level - $before;
            $before = $level;
            if ($moved > $step) {
                $step = $moved;
            } elseif (-$moved > $step) {
                $step = -$moved;
            }
            if ($level < $lowest) {
                $lowest = $level;
            }
            if ($level > $highest) {
                $highest = $level;
            }
        }

        return new self($lowest, $highest, $step);
    }
}
