<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Evidence\OmittedReadings;
use Verjuicer\Core\Assess\Evidence\SuspectReadings;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\RecordedThermometer;
use Verjuicer\Core\Ruleset\ThermometerRules;
use Verjuicer\Core\Ruleset\Tolerance;
use Verjuicer\Tests\Core\Story;

/** Readings kept as columns say what going through each of them says, in the words of the rule. */
final class ColumnsTest extends TestCase
{
    /** Checks of thermometers make parts of readings: each reading stands as the rule, read of it alone, says. */
    public function testAThermometersChecksStandForEachReadingAsTheRuleSays(): void
    {
        $chance = new Randomizer(new Mt19937(41));
        $tolerance = Story::rules()->get(ThermometerRules::class)->tolerance;
        $within = Span::ofSeconds(3600);
        $seen = ['suspect' => 0, 'unchecked' => 0, 'overdue' => 0];
        for ($run = 0; $run < 250; ++$run) {
            $record = $this->record($chance);
            $trace = Timeline::of($record, Story::at('5000'))->readings;
            $sorted = SuspectReadings::of($record->thermometers, $tolerance)->sorted($trace, $within);
            $suspect = $unchecked = $overdue = [];
            foreach ($trace->all() as $reading) {
                $said = $this->said($reading, $record->thermometers, $tolerance, $within);
                $suspect = [...$suspect, ...$said === 'suspect' || $said === 'both' ? [$reading->id] : []];
                $overdue += $said === 'overdue' || $said === 'both' ? [$reading->order => $reading] : [];
                $unchecked += $said === 'unchecked' ? [$reading->order => $reading] : [];
            }
            self::assertSame($suspect, $sorted->suspectIds, "run $run");
            self::assertSame(
                array_values(
                    array_filter(
                        $trace->all(),
                        static fn (TrackReading $one): bool => !\in_array($one->id, $suspect, true),
                    ),
                ),
                $sorted->believed->all(),
            );
            self::assertSame(array_keys($unchecked), array_keys($sorted->unchecked->orders()));
            self::assertSame(array_keys($overdue), array_keys($sorted->overdue->orders()));
            self::assertSame(
                [\count($unchecked), \count($overdue)],
                [$sorted->unchecked->count(), $sorted->overdue->count()],
            );
            self::assertSame(
                [$unchecked === [], $overdue === []],
                [$sorted->unchecked->isEmpty(), $sorted->overdue->isEmpty()],
            );
            self::assertSame(
                [array_values($unchecked)[0] ?? null, array_values($overdue)[0] ?? null],
                [$sorted->unchecked->first(), $sorted->overdue->first()],
            );
            $labels = array_map(
                static fn (TrackReading $one): string => $one->thermometer ?? '',
                array_values($overdue),
            );
            self::assertSame(array_values(array_unique($labels)), $sorted->overdue->thermometers());
            $seen['suspect'] += \count($suspect);
            $seen['unchecked'] += \count($unchecked);
            $seen['overdue'] += \count($overdue);
        }
        self::assertGreaterThan(500, min($seen), 'each is met often');
    }

    /**
     * What counts, in which order: one pass over a record as it stands, and a record with anything out of order, ahead
     * or put right, read word by word.
     */
    public function testWhatCountsIsGatheredAsTheRuleSays(): void
    {
        $chance = new Randomizer(new Mt19937(43));
        for ($run = 0; $run < 250; ++$run) {
            $record = $this->record($chance, isPutRight: $run % 2 === 1);
            $asOf = Story::at((string) $chance->getInt(0, 1500));
            $timeline = Timeline::of($record, $asOf);
            $replaced = array_column($record->events, 'replaces', 'replaces');
            $counted = array_values(
                array_filter(
                    $record->events,
                    static fn (Event $one): bool => $one->at->epoch <= $asOf->epoch && !isset($replaced[$one->id]),
                ),
            );
            usort($counted, static fn (Event $one, Event $other): int => $one->at->epoch <=> $other->at->epoch);
            self::assertSame($counted, $timeline->events, "run $run");
            $readings = array_filter(
                $counted,
                static fn (Event $one): bool => $one->detail instanceof Kinds\Reading,
            );
            self::assertSame(array_keys($readings), $timeline->readings->orders);
            self::assertSame(
                array_keys(array_diff_key($counted, $readings)),
                array_keys($timeline->happenings),
                'what is no reading',
            );
            foreach ($timeline->readings->all() as $reading) {
                $event = $counted[$reading->order];
                $detail = $event->detail;
                self::assertInstanceOf(Kinds\Reading::class, $detail);
                self::assertSame(
                    [$event->id, $event->at->epoch, $detail->temp, $detail->piece.'/'.$detail->spot],
                    [$reading->id, $reading->at, $reading->temp, $reading->track],
                );
                self::assertSame($detail->thermometer, $reading->thermometer);
            }
        }
    }

    /** A part of a record's readings has the tracks that grouping its readings gives, in the order of their first. */
    public function testAPartHasThePartsOfTheTracks(): void
    {
        $chance = new Randomizer(new Mt19937(47));
        for ($run = 0; $run < 150; ++$run) {
            $trace = Timeline::of($this->record($chance), Story::at('5000'))->readings;
            $from = $chance->getInt(0, 60);
            $part = $trace->between($from, $from + $chance->getInt(0, 60));
            $grouped = [];
            foreach ($part->all() as $reading) {
                $grouped[$reading->track][] = $reading;
            }
            $byTrack = array_map(static fn (Trace $one): array => $one->all(), $part->byTrack());
            self::assertSame($grouped, $byTrack, "run $run");
            self::assertSame($grouped, array_map(
                static fn (Trace $one): array => $one->all(),
                Trace::of($part->all())->byTrack(),
            ), 'however it was made');
            if ($part->byTrack() !== []) {
                $shuffled = $chance->shuffleArray(array_values($part->byTrack()));
                self::assertSame($part->all(), Trace::merged(...$shuffled)->all(), 'put together again');
            }
            $labels = array_map(static fn (TrackReading $one): ?string => $one->thermometer, $part->all());
            self::assertSame(
                $labels === [] || \count(array_unique($labels)) === 1,
                $part->isOfOneThermometer() || $labels === [],
            );
        }
    }

    public function testWhatWasLeftOutIsCountedWhereItStands(): void
    {
        $left = static fn (int $count): OmittedReadings => new OmittedReadings($count, 60, [], null, 0, 0, 0);
        $record = Story::of('0 cook', '1 100', '2 101', '3 102 p2', '4 103')->record();
        $leftOut = ['e1' => $left(0), 'e2' => $left(4), 'e4' => $left(7)];
        $trace = Timeline::of($record, Story::at('5'), $leftOut)->readings;
        self::assertSame([4, 15], [$trace->size(), $trace->count()]);
        self::assertFalse($trace->isWhole());
        self::assertSame(['e1', 'e2', 'e4'], array_values(array_map(
            static fn (int $order): string => $record->events[$order]->id,
            array_keys($trace->leftOut()),
        )));
        self::assertSame([true, false, true, false], array_map($trace->follows(...), $trace->orders));
        self::assertSame(['e3'], array_column($trace->fresh()->all(), 'id'), 'what was read since');
        $second = $trace->byTrack()['2/core'];
        self::assertTrue($second->isWhole());
        self::assertSame(1, $second->count());
        self::assertSame(3 + 4, $trace->slice(0, 3)->count());
        self::assertSame($second->at(0), $trace->at(2), 'it is one, however it is found');
    }

    /** @param list<RecordedThermometer> $thermometers */
    private function said(TrackReading $reading, array $thermometers, Tolerance $tolerance, Span $within): string
    {
        $last = $next = null;
        foreach ($thermometers as $thermometer) {
            foreach ($thermometer->id === $reading->thermometer ? $thermometer->checks : [] as $check) {
                if ($check->at->epoch <= $reading->at && ($last === null || $check->at->epoch >= $last->at->epoch)) {
                    $last = $check;
                } elseif (
                    $check->at->epoch > $reading->at && ($next === null || $check->at->epoch < $next->at->epoch)
                ) {
                    $next = $check;
                }
            }
        }
        if ($last === null && $next === null) {
            return 'unchecked';
        }
        $isSuspect = ($last !== null && !$tolerance->covers($last->expected, $last->read))
            || ($next !== null && !$tolerance->covers($next->expected, $next->read));
        $isOverdue = $last === null || $reading->at - $last->at->epoch > $within->seconds;

        return $isSuspect ? ($isOverdue ? 'both' : 'suspect') : ($isOverdue ? 'overdue' : 'fine');
    }

    private function record(Randomizer $chance, bool $isPutRight = false): Record
    {
        $lines = ['0 cook'];
        $minute = 0;
        $label = 'T1';
        for ($count = $chance->getInt(0, 60); $count > 0; --$count) {
            $minute += $chance->getInt(0, 40);
            $label = $chance->getInt(0, 3) === 0 ? ['T1', 'T2', 'T3', ''][$chance->getInt(0, 3)] : $label;
            $lines[] = $chance->getInt(0, 12) === 0
                ? "$minute ".['rest', 'hot_hold', 'cool'][$chance->getInt(0, 2)]
                : trim(\sprintf('%d %d p%d %s', $minute, $chance->getInt(90, 180), $chance->getInt(1, 2), $label));
        }
        $story = Story::of(...$lines)->about('lamb roast 2pieces');
        foreach (['T1', 'T2'] as $id) {
            // No two at one moment: of those nobody says which was the last.
            $checks = [];
            for ($check = $chance->getInt(0, 4); $check > 0; --$check) {
                $checks[$chance->getInt(-60, 900)] = '32 '.($chance->getInt(0, 2) === 0 ? '36' : '32.4');
            }
            $said = array_map(
                static fn (int $at, string $check): string => "$at $check",
                array_keys($checks),
                $checks,
            );
            $story = $story->withThermometer($id, ...$said);
        }
        if (!$isPutRight) {
            return $story->record();
        }
        $record = $story->record();
        $events = $record->events;
        foreach ($events as $place => $event) {
            if ($place > 1 && $chance->getInt(0, 9) === 0) {
                $moved = Instant::ofEpoch($event->at->epoch + 60 * $chance->getInt(-90, 90));
                $other = $chance->getInt(0, 1) === 0 ? $events[$place - 1]->id : null;
                $events[$place] = new Event($event->id, $moved, $event->by, $event->detail, $other);
            }
        }

        return $record->of(array_values($events));
    }
}
