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
     * @param list<Reading> $readings that count
     * @param CookingRow|null $row the row that is reached
     * @param Reading|null $first the first of the run that reaches it
     * @param Reading|null $reached the one that completes it
     */
    private function __construct(
        public string $track,
        public array $readings,
        public Dwell $dwell,
        public ?CookingRow $row,
        public ?Reading $first,
        public ?Reading $reached,
    ) {
    }

    /**
     * A probe that leaves the spot before anything is reached takes with it what it read so far: it may not have been
     * the coldest place.
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
            $until = $move === null ? \count($trace->readings) : $trace->countBefore($move);
            $dwell = new Dwell($window->openRows, $rules);
            $part = $from === 0 && $move === null
                ? $trace->readings
                : \array_slice($trace->readings, $from, $until - $from);
            $reached = $dwell->through($part);
            if ($reached !== null) {
                $counted = $from === 0 ? $trace->readings : \array_slice($trace->readings, $from);

                return new self($track, $counted, $dwell, ...$reached);
            }
            $from = $move === null ? $from : $until;
        } while ($move !== null);

        return $part === [] ? null : new self($track, $part, $dwell, null, null, null);
    }

    public function piece(): int
    {
        return $this->readings[0]->piece;
    }

    public function last(): Reading
    {
        return $this->readings[\count($this->readings) - 1];
    }

    /** Whether it was read early and below this temperature only: as raw meat is. */
    public function isRaw(Threshold $middle, int $until): bool
    {
        if ($this->reached !== null || $this->last()->at > $until) {
            return false;
        }
        foreach ($this->readings as $reading) {
            if ($reading->temp->isAtLeast($middle)) {
                return false;
            }
        }

        return true;
    }

    /** Whether any reading after this one is at this temperature or above. */
    public function isWarmAfter(Reading $other, Threshold $middle): bool
    {
        for (
            $index = \count($this->readings) - 1;
            $index >= 0 && $this->readings[$index]->order > $other->order;
            --$index
        ) {
            if ($this->readings[$index]->temp->isAtLeast($middle)) {
                return true;
            }
        }

        return false;
    }
}
