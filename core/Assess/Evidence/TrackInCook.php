<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRules;

/** The readings of one track in one cook as far as they count, and the row they reach. */
final readonly class TrackInCook
{
    /**
     * @param Trace $readings that count; not empty
     * @param CookingRow|null $row the row that is reached
     * @param TrackReading|null $first the first of the run that reaches it
     * @param TrackReading|null $reached the one that completes it
     */
    private function __construct(
        public string $track,
        public Trace $readings,
        public Dwell $dwell,
        public ?CookingRow $row,
        public ?TrackReading $first,
        public ?TrackReading $reached,
    ) {
    }

    /**
     * A probe that leaves its spot before the target takes its readings with it: the spot may not have been the
     * coldest.
     *
     * @param list<int> $moves the places at which the probe left it, in order
     *
     * @return self|null null where no reading is left to count
     */
    public static function of(string $track, Trace $trace, CookWindow $window, CookingRules $rules, array $moves): ?self
    {
        $from = 0;
        do {
            $move = array_shift($moves);
            $until = $move === null ? $trace->size() : $trace->countBefore($move);
            $dwell = new Dwell($window->openRows, $rules);
            $part = $trace->slice($from, $until);
            $reached = $dwell->through($part);
            if ($reached !== null) {
                return new self($track, $trace->slice($from, $trace->size()), $dwell, ...$reached);
            }
            $from = $move === null ? $from : $until;
        } while ($move !== null);

        return $part->isEmpty() ? null : new self($track, $part, $dwell, null, null, null);
    }

    public function piece(): int
    {
        return $this->readings->at(0)->piece;
    }

    public function last(): TrackReading
    {
        return $this->readings->at($this->readings->size() - 1);
    }

    /** Whether it was read early and below this temperature only: as raw meat is. */
    public function isRaw(Threshold $middle, int $until): bool
    {
        return $this->reached === null
            && $this->last()->at <= $until
            && $this->readings->firstAtLeast($middle) === null;
    }

    /** Whether any reading after this one is at this temperature or above. */
    public function isWarmAfter(TrackReading $other, Threshold $middle): bool
    {
        $temps = $this->readings->temps;
        for ($index = \count($temps) - 1; $index >= 0 && $this->readings->orders[$index] > $other->order; --$index) {
            if ($temps[$index]->isAtLeast($middle)) {
                return true;
            }
        }

        return false;
    }
}
