<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Checkpoint;

/** Marked readings of one track: the first and last of each kind since the last stage or probe move. */
final class TrackMarks
{
    /** @var array<string, RetainedReading> by mark */
    public array $on = [];

    /** @var array<int, array<int, true>> by limit: which of below, at and above it was seen, −1, 0 or 1 */
    public array $seen = [];

    /** Whether any was read since the last stage or probe move. */
    public bool $isBegun = false;

    /** How many rows of the cook, from the coolest, have a run going on. */
    public int $running = 0;

    /** @var array<int, true> rows that were reached in this cook */
    public array $reached = [];

    public bool $wasImpossible = false;

    /** Seconds: how long a part of the outline is; 0 while all of it is kept. */
    public int $slot = 0;

    /** How many were read since the last stage, and when the first was. */
    public int $count = 0;

    public int $from = 0;

    /**
     * @var list<array{RetainedReading, RetainedReading, RetainedReading}> of each part of the outline: first, lowest,
     *     highest
     */
    public array $outline = [];

    public ?RetainedReading $last = null;
}
