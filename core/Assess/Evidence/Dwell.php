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
    /** @var array<int, Reading> by row: the first reading of the run that is going on at its temperature */
    private array $firsts = [];

    /** How many rows, from the coolest, have a run going on; a hotter row's run is part of every cooler one's. */
    private int $running = 0;

    private ?Reading $previous = null;

    /** The hottest reading seen, by the physics. */
    public ?Reading $highest = null;

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
                static fn (CookingRow $row): int => $row->temperature->printedIn($unit)->ninetieths(),
                $rows,
            );
        }
        $this->levels = $levels;
    }

    /** @return array{CookingRow, Reading}|null the row this reading completes and the first reading of its run */
    public function see(Reading $reading): ?array
    {
        $gap = $reading->leftOut->gap ?? $reading->at - ($this->previous->at ?? $reading->at);
        if ($gap > $this->rules->runGap->seconds) {
            $this->running = 0;
        }
        foreach ($reading->leftOut->lowest ?? [] as $unit => $lowest) {
            $this->breakBelow($lowest, $this->levels[$unit]);
        }
        $this->previous = $reading;
        $levels = $this->levels[$reading->temp->unit->value];
        $level = $reading->level;
        $this->breakBelow($level, $levels);
        $running = $this->running;
        while (isset($levels[$running]) && $level >= $levels[$running]) {
            $this->firsts[$running++] = $reading;
        }
        $this->running = $running;
        if ($running > 0) {
            $this->wasHotEnough = true;
        }
        if ($this->highest === null || $this->highest->level < $level) {
            $this->highest = $reading;
        }
        for ($row = 0; $row < $running; ++$row) {
            $held = $reading->at - $this->firsts[$row]->at + $this->rules->settled->seconds;
            if ($held >= $this->rows[$row]->dwell->seconds) {
                return [$this->rows[$row], $this->firsts[$row]];
            }
        }

        return null;
    }

    /**
     * Ends the runs of rows that this level does not reach.
     *
     * @param non-empty-list<int> $levels of the rows
     */
    private function breakBelow(int $level, array $levels): void
    {
        while ($this->running > 0 && $level < $levels[$this->running - 1]) {
            --$this->running;
        }
    }

    /**
     * @return array{CookingRow, Reading, Instant}|null the row a further reading would show soonest, since when, and
     *     from when on
     */
    public function soonest(): ?array
    {
        $soonest = null;
        for ($row = 0; $row < $this->running; ++$row) {
            $at = $this->firsts[$row]->at + $this->rows[$row]->dwell->seconds - $this->rules->settled->seconds;
            if ($soonest === null || $at < $soonest[2]->epoch) {
                $soonest = [$this->rows[$row], $this->firsts[$row], Instant::ofEpoch($at)];
            }
        }

        return $soonest;
    }
}
