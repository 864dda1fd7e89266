<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRules;

/** Watches the readings of one track for the first row of a cooking rule that they show to be reached. */
final class Dwell
{
    /** @var array<int, TrackReading> by row: the first reading of the run that is going on at its temperature */
    private array $firsts = [];

    /** How many rows, from the coolest, have a run going on; a hotter row's run is part of every cooler one's. */
    private int $running = 0;

    /** When the last one seen was read, in seconds since 1970. */
    private ?int $lastAt = null;

    /** The hottest reading seen, by the physics. */
    public ?TrackReading $highest = null;

    /**
     * Whether any reading was, by its own unit's figure, at the coolest row: that need not be the hottest by the
     * physics.
     */
    public bool $wasHotEnough = false;

    /** @var array<string, non-empty-list<int>> the rows' temperatures in ninetieths of a degree Celsius, by unit */
    private readonly array $levels;

    /** @param non-empty-list<CookingRow> $rows from the coolest to the hottest */
    public function __construct(private readonly array $rows, private readonly CookingRules $rules)
    {
        $levels = [];
        foreach (TemperatureUnit::cases() as $unit) {
            $levels[$unit->value] = array_map(
                static fn (CookingRow $row): int => $row->temperature->printedIn($unit)->ninetieths,
                $rows,
            );
        }
        $this->levels = $levels;
    }

    /**
     * Goes through further readings, up to the first that completes a row.
     *
     * @return array{CookingRow, TrackReading, TrackReading}|null the row, the first reading of its run, and the one
     *     that completes it
     */
    public function through(Trace $readings): ?array
    {
        $runGap = $this->rules->runGap->seconds;
        $running = $this->running;
        $ats = $readings->ats;
        $isAbridged = !$readings->isWhole();
        $highest = null;
        $peak = $this->highest->level ?? \PHP_INT_MIN;
        $due = $this->due($running);
        $unit = null;
        $levels = [];
        $next = $lowest = \PHP_INT_MAX;
        $reached = null;
        foreach ($readings->temps as $index => $temp) {
            $level = $temp->ninetieths;
            if ($level > $peak) {
                $peak = $level;
                $highest = $index;
            }
            if ($temp->unit !== $unit) {
                $unit = $temp->unit;
                $levels = $this->levels[$unit->value];
                $lowest = $levels[0];
                $next = $levels[$running] ?? \PHP_INT_MAX;
            }
            if ($running === 0 && $level < $lowest) {
                continue;
            }
            $at = $ats[$index];
            $before = $running;
            if ($running > 0) {
                $leftOut = $isAbridged ? $readings->leftOutBefore($readings->orders[$index]) : null;
                if (($leftOut->gap ?? $at - ($ats[$index - 1] ?? $this->lastAt ?? $at)) > $runGap) {
                    $running = 0;
                }
                foreach ($leftOut->lowest ?? [] as $of => $coolest) {
                    $running = self::unbroken($running, $coolest, $this->levels[$of]);
                }
                while ($running > 0 && $level < $levels[$running - 1]) {
                    --$running;
                }
            }
            $isBroken = $running < $before;
            if ($isBroken || $level >= $next) {
                while (isset($levels[$running]) && $level >= $levels[$running]) {
                    $this->firsts[$running++] = $readings->at($index);
                }
                $next = $levels[$running] ?? \PHP_INT_MAX;
                $due = $this->due($running);
            }
            if ($at >= $due) {
                $reached = $this->reached($running, $readings->at($index));
                break;
            }
        }
        if ($highest !== null) {
            $this->highest = $readings->at($highest);
        }
        $this->wasHotEnough = $this->wasHotEnough || $this->firsts !== [];
        $this->running = $running;
        $this->lastAt = $ats[\count($ats) - 1] ?? $this->lastAt;

        return $reached;
    }

    /** Seconds since 1970: from when on a reading completes one of the rows that have a run going on. */
    private function due(int $running): int
    {
        $due = \PHP_INT_MAX;
        for ($row = 0; $row < $running; ++$row) {
            $due = min($due, $this->dueOf($row));
        }

        return $due;
    }

    private function dueOf(int $row): int
    {
        return $this->firsts[$row]->at + $this->rows[$row]->dwell->seconds - $this->rules->settled->seconds;
    }

    /** @return array{CookingRow, TrackReading, TrackReading}|null */
    private function reached(int $running, TrackReading $reading): ?array
    {
        for ($row = 0; $row < $running; ++$row) {
            if ($reading->at >= $this->dueOf($row)) {
                return [$this->rows[$row], $this->firsts[$row], $reading];
            }
        }

        return null;
    }

    /**
     * How many runs go on below this level: those of rows that it does not reach end.
     *
     * @param list<int> $levels of the rows
     */
    private static function unbroken(int $running, int $level, array $levels): int
    {
        while ($running > 0 && $level < $levels[$running - 1]) {
            --$running;
        }

        return $running;
    }

    /**
     * @return array{CookingRow, TrackReading, Instant}|null the row a further reading would show soonest, since when,
     *     and from when on
     */
    public function soonest(): ?array
    {
        $soonest = null;
        for ($row = 0; $row < $this->running; ++$row) {
            $at = $this->dueOf($row);
            if ($soonest === null || $at < $soonest[2]->epoch) {
                $soonest = [$this->rows[$row], $this->firsts[$row], Instant::ofEpoch($at)];
            }
        }

        return $soonest;
    }
}
