<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Checkpoint;

use Verjuicer\Core\Assess\Check\ImpossibleReadingsCheck;
use Verjuicer\Core\Assess\Check\ThermometerAgreementCheck;
use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\OmittedReadings;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\SuspectReadings;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Zone\ExposureLines;
use Verjuicer\Core\Assess\Zone\StageTouch;
use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\ThermometerRules;
use Verjuicer\Core\Ruleset\TimeControlRules;

/**
 * Keeps the readings a check may still need. Per track, and per part of the record between two stages or probe moves:
 * the first and last on each side of each limit with their neighbours, the runs of a cook, the longest unread gap,
 * doubtful readings and an outline.
 */
final class CheckpointBuilder
{
    /** @var array<string, TrackMarks> by track */
    private array $marks = [];

    private ?RetainedReading $last = null;

    private ?RetainedReading $longest = null;

    private int $silence = -1;

    private bool $isInCook = false;

    /** Whether nothing was read since the last stage or probe move. */
    private bool $isUnread = true;

    /** @var list<int> seconds since 1970: the last reading until each is a start reading of time control */
    private array $starts = [];

    /** @var list<array{int, string}> temperatures that a reminder waits for: tenths, unit */
    private array $reminders = [];

    /** @var array<string, true> thermometers of which one reading says that it was unchecked, or long ago */
    private array $doubted = [];

    private function __construct(
        private readonly ComparedTemperatures $limits,
        private readonly CookingRules $cooking,
        private readonly HouseLimits $house,
        private readonly TimeControlRules $timeControl,
        private readonly int $few,
    ) {
    }

    /**
     * The checkpoint of a record, or of an abridged record that went on, at a moment.
     *
     * @param Checkpoint|null $past the earlier checkpoint; the record before its end holds only the readings it kept
     * @param int $few how many readings of a track in a stage stand in its outline
     *
     * @return Checkpoint|null null where a reading is suspect: then all are needed
     */
    public static function of(
        Record $record,
        RuleSet $rules,
        Instant $until,
        ?Checkpoint $past = null,
        int $few = Outline::FEW,
    ): ?Checkpoint {
        $rules = $rules->stricter($record->site->house);
        $timeline = Timeline::of($record, $until, $past->leftOut ?? []);
        $house = $rules->house();
        $sorted = SuspectReadings::of($record->thermometers, $rules->get(ThermometerRules::class)->tolerance)
            ->sorted($timeline->readings, $house->thermometerCheck);
        if ($sorted->suspectIds !== []) {
            return null;
        }
        $unchecked = $sorted->unchecked->orders();
        $overdue = $sorted->overdue->orders();
        $readings = $timeline->readings->all();
        $abridging = new self(
            new ComparedTemperatures($rules, $record->product),
            $rules->get(CookingRules::class),
            $house,
            $rules->get(TimeControlRules::class),
            $few,
        );
        $next = 0;
        $size = $past->size ?? 0;
        $kept = [];
        foreach ($timeline->events as $order => $event) {
            if ($order === $size && $past !== null) {
                $abridging->restore($past, $kept);
            }
            $reading = null;
            if (isset($readings[$next]) && $readings[$next]->order === $order) {
                $reading = $readings[$next++];
            }
            if ($reading !== null) {
                $isUnchecked = isset($unchecked[$order]);
                $isOverdue = isset($overdue[$order]);
                if ($order < $size) {
                    $leftOut = $reading->leftOut;
                    \assert($leftOut !== null, 'what is kept says what was left out before it');
                    $kept[] = new RetainedReading($reading, $isUnchecked, $isOverdue, $leftOut);
                } else {
                    $abridging->read($reading, $isUnchecked, $isOverdue, $event->replaces !== null);
                }
            } elseif ($order >= $size) {
                $abridging->happened($event);
            }
        }
        if ($past !== null && \count($timeline->events) <= $size) {
            $abridging->restore($past, $kept);
        }
        $case = new CaseFile($record->site, $record->product, $rules, $timeline, $timeline->readings);
        $lines = ($past->lines ?? new ExposureLines())->through($case, new StageTouch($timeline), true);

        return $abridging->abridged($until->epoch, $timeline, $lines);
    }

    private function happened(Event $event): void
    {
        $detail = $event->detail;
        if ($detail instanceof Kinds\ProbeMoved) {
            $this->divide(false);
            $marks = $this->marks[$detail->piece.'/'.$detail->spot] ?? null;
            if ($marks !== null) {
                $this->endRuns($marks);
                $marks->reached = [];
            }
        } elseif ($detail instanceof BeginsStage) {
            $this->divide(true);
            $isCook = $detail instanceof Kinds\Cook;
            foreach ($isCook && !$this->isInCook ? $this->marks : [] as $marks) {
                $this->endRuns($marks);
                $marks->reached = [];
            }
            $this->isInCook = $isCook || ($this->isInCook && $detail instanceof Kinds\Rest);
        }
        if ($detail instanceof Kinds\TimeControl) {
            $this->starts[] = $event->at->epoch + $this->timeControl->startReadingAfter->seconds;
        }
        if ($detail instanceof Kinds\Note && $detail->step === NoteStep::Reminder && $detail->temp !== null) {
            $this->reminders[] = [$detail->temp->tenths, $detail->temp->unit->value];
        }
    }

    /** Marks up to here stay. */
    private function divide(bool $isStage): void
    {
        foreach ($this->marks as $marks) {
            foreach ($marks->on as $name => $kept) {
                $kept->isPinned = true;
                if (!str_starts_with($name, 'run') && $name !== 'warm') {
                    unset($marks->on[$name]);
                    --$kept->holds;
                }
            }
            $this->pin($marks->last);
            foreach ($isStage ? $marks->outline : [] as $part) {
                foreach ($part as $kept) {
                    $kept->isPinned = true;
                    --$kept->holds;
                }
            }
            $marks->outline = $isStage ? [] : $marks->outline;
            $marks->count = $isStage ? 0 : $marks->count;
            $marks->slot = $isStage ? 0 : $marks->slot;
            $marks->seen = [];
            $marks->isBegun = false;
        }
        $this->pin($this->longest);
        $this->longest = null;
        $this->silence = -1;
        $this->isUnread = true;
    }

    /** @param bool $isPinned a reading that replaces another is kept: without it the other would count again */
    private function read(TrackReading $reading, bool $isUnchecked, bool $isOverdue, bool $isPinned): void
    {
        $marks = $this->marks[$reading->track] ??= new TrackMarks();
        $before = $marks->last;
        $gap = $before === null ? 0 : $reading->at - $before->reading->at;
        $isImpossible =
            $before !== null && ImpossibleReadingsCheck::areImpossible($before->reading, $reading, $this->house);
        $leftOut = new OmittedReadings(0, $gap, [], $this->last?->reading->at, $isImpossible ? 1 : 0, 0, 0);
        $one = new RetainedReading($reading, $isUnchecked, $isOverdue, $leftOut);
        $one->previous = $before;
        $one->isPinned = $isPinned;
        ++$one->holds;
        if ($before !== null) {
            $before->next = $one;
            $disagree = ThermometerAgreementCheck::disagree($before->reading, $reading, $this->house);
            if ($gap === 0 || $disagree || ($isImpossible && !$marks->wasImpossible)) {
                $this->pin($before);
                $this->pin($one);
            }
            $marks->wasImpossible = $marks->wasImpossible || $isImpossible;
        }
        $this->markLimits($marks, $one);
        $this->markRuns($marks, $one);
        $this->markSilence($one);
        $this->outline($marks, $one);
        $highest = $marks->on['highest'] ?? null;
        if ($highest === null || $highest->reading->level < $reading->level) {
            $this->mark($marks, 'highest', $one);
        }
        $this->markDoubts($one);
        $this->reminders = array_values(array_filter($this->reminders, function (array $waiting) use ($one): bool {
            $temp = Temperature::ofTenths($waiting[0], TemperatureUnit::from($waiting[1]));
            $isReached = !$temp->isHotterThan($one->reading->temp);
            $this->pin($isReached ? $one : null);

            return !$isReached;
        }));
        $marks->isBegun = true;
        $this->isUnread = false;
        $marks->last = $this->last = $one;
        if ($before !== null) {
            $this->release($before);
        }
    }

    /** The first and the last on each side of each limit, and the reading before each. */
    private function markLimits(TrackMarks $marks, RetainedReading $one): void
    {
        $before = $marks->last;
        $now = $this->limits->sides($one->reading);
        $then = $before === null ? null : $this->limits->sides($before->reading);
        if (!$marks->isBegun) {
            $this->pin($one);
        } elseif ($now === $then) {
            return;
        }
        if ($now[ComparedTemperatures::COLD] > 0 && ($then === null || $then[ComparedTemperatures::COLD] <= 0)) {
            // Where it rises out of the cold, and stays out of it so far.
            $this->mark($marks, 'warm', $one);
            $seen = $marks->seen[ComparedTemperatures::COLD] ?? [];
            if (isset($seen[-1]) || isset($seen[0])) {
                $this->pinOnce($marks, 'rose', $one);
            }
        }
        foreach ($now as $limit => $side) {
            if ($marks->isBegun && $before !== null && $then !== null && $then[$limit] !== $side) {
                $this->mark($marks, "last $limit $then[$limit]", $before);
            }
            $seen = $marks->seen[$limit] ?? [];
            $marks->seen[$limit][$side] = true;
            if ($limit >= $this->limits->firstRow) {
                if ($side >= 0 && !isset($seen[0]) && !isset($seen[1])) {
                    $this->pin($one);
                }
            } elseif (!isset($seen[$side])) {
                $this->pin($one);
                $this->pin($before);
                // Passing a limit depends on the reading just before.
                $isUnderHot = $side < 0 && \in_array($limit, ComparedTemperatures::HOT, true);
                foreach ($isUnderHot ? $this->marks : [$marks] as $of) {
                    $this->pin($of->last);
                    array_map($this->pin(...), $of->on);
                }
            }
            if ($side >= 0 && isset($seen[-1]) && \in_array($limit, ComparedTemperatures::HOT, true)) {
                $this->pinOnce($marks, "back $limit", $one, $before);
            }
        }
    }

    /** The runs at the temperatures of the cook's rows, and the reading that completes a row. */
    private function markRuns(TrackMarks $marks, RetainedReading $one): void
    {
        if ($one->leftOut()->gap > $this->cooking->runGap->seconds) {
            $this->endRuns($marks);
        }
        $levels = $this->limits->rowLevels[$one->reading->temp->unit->value];
        while ($marks->running > 0 && $one->reading->level < $levels[$marks->running - 1]) {
            $this->unmark($marks, 'run '.--$marks->running);
        }
        while (isset($levels[$marks->running]) && $one->reading->level >= $levels[$marks->running]) {
            $this->mark($marks, 'run '.$marks->running++, $one);
        }
        for ($row = 0; $row < $marks->running; ++$row) {
            if (!isset($marks->reached[$row])) {
                $first = $marks->on["run $row"];
                $held = $one->reading->at - $first->reading->at + $this->cooking->settled->seconds;
                if ($held >= $this->limits->rows[$row]->dwell->seconds) {
                    $marks->reached[$row] = true;
                    $this->pin($first);
                    $this->pin($one);
                }
            }
        }
    }

    private function endRuns(TrackMarks $marks): void
    {
        while ($marks->running > 0) {
            $this->unmark($marks, 'run '.--$marks->running);
        }
    }

    private function markSilence(RetainedReading $one): void
    {
        $silence = $one->leftOut()->before === null ? -1 : $one->reading->at - $one->leftOut()->before;
        if (!$this->isUnread && $silence > $this->silence) {
            ++$one->holds;
            if ($this->longest !== null) {
                $this->release($this->longest);
            }
            $this->longest = $one;
            $this->silence = $silence;
        }
        foreach ($this->starts as $until) {
            $this->pin($one->reading->at > $until ? $this->last : null);
        }
        $this->starts = array_values(
            array_filter($this->starts, static fn (int $until): bool => $one->reading->at <= $until),
        );
    }

    /**
     * The first of each part of time, which `Outline` takes out of all of them; and the lowest and the highest of it,
     * for pictures.
     */
    private function outline(TrackMarks $marks, RetainedReading $one): void
    {
        $at = $one->reading->at;
        $marks->from = $marks->count === 0 ? $at : $marks->from;
        ++$marks->count;
        $slot = Outline::slot($marks->count, $at - $marks->from, $this->few);
        if ($slot !== $marks->slot) {
            $marks->slot = $slot;
            $outline = $marks->outline;
            $marks->outline = [];
            foreach ($outline as $part) {
                $this->addToOutline($marks, $part);
            }
        }
        $part = [$one, $one, $one];
        $one->holds += \count($part);
        $this->addToOutline($marks, $part);
    }

    /** @param array{RetainedReading, RetainedReading, RetainedReading} $part the first, the lowest and the highest */
    private function addToOutline(TrackMarks $marks, array $part): void
    {
        $last = \count($marks->outline) - 1;
        $into = $marks->outline[$last] ?? null;
        $slot = $marks->slot;
        if (
            $into === null
            || $slot === 0
            || intdiv($into[0]->reading->at, $slot) !== intdiv($part[0]->reading->at, $slot)
        ) {
            $marks->outline[] = $part;

            return;
        }
        $isLower = $part[1]->reading->level < $into[1]->reading->level;
        $isHigher = $part[2]->reading->level > $into[2]->reading->level;
        $marks->outline[$last] = [$into[0], $isLower ? $part[1] : $into[1], $isHigher ? $part[2] : $into[2]];
        $this->release($part[0]);
        $this->release($isLower ? $into[1] : $part[1]);
        $this->release($isHigher ? $into[2] : $part[2]);
    }

    /** One by a thermometer that was never checked, and one by each whose check was too long ago. */
    private function markDoubts(RetainedReading $one): void
    {
        $of = $one->isUnchecked ? '' : ($one->isOverdue ? 'T'.$one->reading->thermometer : null);
        if ($of !== null && !isset($this->doubted[$of])) {
            $this->doubted[$of] = true;
            $this->pin($one);
        }
    }

    private function pin(?RetainedReading $one): void
    {
        if ($one !== null) {
            $one->isPinned = true;
        }
    }

    private function pinOnce(TrackMarks $marks, string $name, RetainedReading $one, ?RetainedReading $also = null): void
    {
        if (!isset($marks->on[$name])) {
            $this->mark($marks, $name, $one);
            $this->pin($one);
            $this->pin($also);
        }
    }

    private function mark(TrackMarks $marks, string $name, RetainedReading $one): void
    {
        ++$one->holds;
        $this->unmark($marks, $name);
        $marks->on[$name] = $one;
    }

    private function unmark(TrackMarks $marks, string $name): void
    {
        $before = $marks->on[$name] ?? null;
        unset($marks->on[$name]);
        if ($before !== null) {
            $this->release($before);
        }
    }

    private function release(RetainedReading $one): void
    {
        if (--$one->holds === 0 && !$one->isPinned) {
            $one->leave();
        }
    }

    private function abridged(int $until, Timeline $timeline, ExposureLines $lines): Checkpoint
    {
        $kept = [];
        foreach ($this->marks as $marks) {
            for ($one = $marks->last; $one !== null; $one = $one->previous) {
                $kept[$one->reading->order] = $one;
            }
        }
        ksort($kept);
        $places = $leftOut = $pinned = [];
        foreach (array_values($kept) as $place => $one) {
            $places[$one->reading->id] = $place;
            $leftOut[$one->reading->id] = $one->leftOut();
            if ($one->isPinned) {
                $pinned[] = $place;
            }
        }
        $place = static fn (?RetainedReading $one): ?int => $one === null ? null : $places[$one->reading->id];

        return new Checkpoint(
            $until,
            \count($timeline->happenings) + \count($kept),
            $leftOut,
            $lines,
            [
                'pinned' => $pinned,
                'longest' => $place($this->longest),
                'silence' => $this->silence,
                'is_in_cook' => $this->isInCook,
                'is_unread' => $this->isUnread,
                'starts' => array_values($this->starts),
                'reminders' => $this->reminders,
                'doubted' => array_map(strval(...), array_keys($this->doubted)),
                'tracks' => (object) array_map(
                    static fn (TrackMarks $marks): array => [
                        'on' => (object) array_map($place, $marks->on),
                        'outline' => array_map(
                            static fn (array $part): array => array_map($place, $part),
                            $marks->outline,
                        ),
                        'seen' => (object) array_map(array_keys(...), $marks->seen),
                        'is_begun' => $marks->isBegun,
                        'running' => $marks->running,
                        'reached' => array_keys($marks->reached),
                        'was_impossible' => $marks->wasImpossible,
                        'slot' => $marks->slot,
                        'count' => $marks->count,
                        'from' => $marks->from,
                    ],
                    $this->marks,
                ),
            ],
        );
    }

    /** @param list<RetainedReading> $kept in order */
    private function restore(Checkpoint $past, array $kept): void
    {
        /**
         * @var array{
         *     pinned: list<int>,
         *     longest: int|null,
         *     silence: int,
         *     is_in_cook: bool,
         *     is_unread: bool,
         *     starts: list<int>,
         *     reminders: list<array{int, string}>,
         *     doubted: list<string>,
         *     tracks: array<string, array{
         *         on: array<string, int>,
         *         outline: list<array{int, int, int}>,
         *         seen: array<int, list<int>>,
         *         is_begun: bool,
         *         running: int,
         *         reached: list<int>,
         *         was_impossible: bool,
         *         slot: int,
         *         count: int,
         *         from: int
         *     }>
         * } $data
         */
        $data = json_decode(json_encode($past->marks, \JSON_THROW_ON_ERROR), true, flags: \JSON_THROW_ON_ERROR);
        foreach ($data['pinned'] as $place) {
            $kept[$place]->isPinned = true;
        }
        foreach ($data['tracks'] as $track => $of) {
            $marks = $this->marks[$track] = new TrackMarks();
            $marks->on = array_map(static fn (int $place): RetainedReading => $kept[$place], $of['on']);
            foreach ($of['outline'] as [$first, $lowest, $highest]) {
                $marks->outline[] = [$kept[$first], $kept[$lowest], $kept[$highest]];
            }
            foreach (array_merge(array_values($marks->on), ...$marks->outline) as $one) {
                ++$one->holds;
            }
            $marks->seen = array_map(
                static fn (array $sides): array => array_fill_keys($sides, true),
                $of['seen'],
            );
            $marks->isBegun = $of['is_begun'];
            $marks->running = $of['running'];
            $marks->reached = array_fill_keys($of['reached'], true);
            $marks->wasImpossible = $of['was_impossible'];
            $marks->slot = $of['slot'];
            $marks->count = $of['count'];
            $marks->from = $of['from'];
        }
        foreach ($kept as $one) {
            $marks = $this->marks[$one->reading->track];
            $one->previous = $marks->last;
            if ($marks->last !== null) {
                $marks->last->next = $one;
            }
            $marks->last = $this->last = $one;
        }
        foreach ($this->marks as $marks) {
            if ($marks->last !== null) {
                ++$marks->last->holds;
            }
        }
        $this->longest = $data['longest'] === null ? null : $kept[$data['longest']];
        if ($this->longest !== null) {
            ++$this->longest->holds;
        }
        $this->silence = $data['silence'];
        $this->isInCook = $data['is_in_cook'];
        $this->isUnread = $data['is_unread'];
        $this->starts = $data['starts'];
        $this->reminders = $data['reminders'];
        $this->doubted = array_fill_keys($data['doubted'], true);
    }
}
