<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** A time without any reading, between readings or at an end. */
final readonly class UnreadGap
{
    private function __construct(public Instant $from, public Instant $to)
    {
    }

    /** The longest silence from the start over each reading to the end; the earliest of equals. */
    public static function longestIn(Instant $from, Instant $to, Trace $readings): self
    {
        $longest = -1;
        $longestFrom = $longestTo = $previous = $from->epoch;
        $isWhole = $readings->isWhole();
        foreach ($readings->ats as $index => $at) {
            if (!$isWhole) {
                $previous = max($previous, $readings->leftOutBefore($readings->orders[$index])->before ?? $previous);
            }
            if ($at - $previous > $longest) {
                $longest = $at - $previous;
                $longestFrom = $previous;
                $longestTo = $at;
            }
            $previous = $at;
        }
        if ($to->epoch - $previous > $longest) {
            $longestFrom = $previous;
            $longestTo = $to->epoch;
        }

        return new self(Instant::ofEpoch($longestFrom), Instant::ofEpoch($longestTo));
    }

    public function span(): Span
    {
        return Span::between($this->from, $this->to);
    }
}
