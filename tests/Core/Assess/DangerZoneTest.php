<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Zone\ExposureLine;
use Verjuicer\Core\Assess\Zone\StageTouch;
use Verjuicer\Core\Assess\Zone\ZoneSide;
use Verjuicer\Core\Ruleset\DangerZoneRules;
use Verjuicer\Tests\Core\Story;

/** What the quick way along the lines comes to is what every span by itself does, and what every second says. */
final class DangerZoneTest extends TestCase
{
    private const STAGES = [
        'cook',
        'rest',
        'hot_hold',
        'cool',
        'cold_hold',
        'prep',
        'freeze',
        'reheat for=hot_hold',
        'thaw method=refrigerator',
    ];

    public function testIsTheSumOfItsSpans(): void
    {
        $chance = new Randomizer(new Mt19937(31));
        $inZone = 0;
        for ($run = 0; $run < 400; ++$run) {
            [$story, $asOf] = self::story($chance);
            $assessment = Story::of(...$story)->about('beef cut 2pieces')->assess((string) $asOf);
            [$least, $greatest, $estimate] = self::plain($assessment);
            $zone = $assessment->dangerZone;
            $said = implode(', ', $story);
            self::assertSame($least, $zone->least->seconds, $said);
            self::assertGreaterThanOrEqual($greatest, $zone->greatest->seconds, 'with what nobody read: '.$said);
            if ($zone->greatest->seconds === $greatest) {
                self::assertEqualsWithDelta($estimate, $zone->estimate->seconds, 1.0, $said);
            }
            $inZone += $zone->least->seconds > 0 ? 1 : 0;
        }
        self::assertGreaterThan(100, $inZone);
    }

    public function testThePartsByStageAddUpToTheEstimate(): void
    {
        $chance = new Randomizer(new Mt19937(41));
        $unstaged = 0;
        for ($run = 0; $run < 400; ++$run) {
            [$story, $asOf] = self::story($chance);
            // Readings before the first step, as a probe has them.
            $zone = Story::of('-90 50', '-30:20 70', ...$story)->about('beef cut 2pieces')
                ->assess((string) $asOf)->dangerZone;
            self::assertSame($zone->estimate->seconds, array_sum($zone->byStage), implode(', ', $story));
            $unstaged += isset($zone->byStage[StageTouch::UNSTAGED]) ? 1 : 0;
        }
        self::assertGreaterThan(100, $unstaged);
    }

    /** One spot, one unit, two readings: second by second along the line. */
    public function testALineIsInTheZoneAsLongAsItsSecondsAre(): void
    {
        $chance = new Randomizer(new Mt19937(37));
        for ($run = 0; $run < 200; ++$run) {
            [$from, $to, $minutes] = [$chance->getInt(20, 180), $chance->getInt(20, 180), $chance->getInt(1, 60)];
            $zone = Story::of('0 cook', "1 $from", (1 + $minutes)." $to")->about('beef cut')
                ->assess((string) (1 + $minutes))->dangerZone;
            $seconds = 0.0;
            for ($second = 0; $second < 60 * $minutes; ++$second) {
                foreach ([0.25, 0.75] as $part) {
                    $degrees = $from + (($to - $from) * ($second + $part)) / (60 * $minutes);
                    $seconds += $degrees > 41 && $degrees < 135 ? 0.5 : 0.0;
                }
            }
            self::assertEqualsWithDelta($seconds, $zone->estimate->seconds, 1.01, "$from to $to in $minutes min");
        }
    }

    /**
     * @return array{int, int, float} least, greatest and estimate in seconds, each span by itself; without what comes
     *     before the first reading and after the last
     */
    private static function plain(Assessment $assessment): array
    {
        $touch = new StageTouch($assessment->timeline);
        $limits = $assessment->rules->limits();
        $side = new ZoneSide($limits->cold->threshold, $limits->hot->threshold);
        $hotSpan = $assessment->rules->get(DangerZoneRules::class)->hotSpan->seconds;
        $most = [0, 0, 0.0];
        foreach (self::lines($assessment->timeline->readings->all()) as $line) {
            $sums = [0, 0, 0.0];
            foreach (\array_slice($line, 1) as $index => $reading) {
                $before = $line[$index];
                [$from, $to] = [$before->at, $reading->at];
                if ($to === $from) {
                    continue;
                }
                [$was, $is] = array_map(
                    static fn (TrackReading $one): int => match (true) {
                        $one->temp->isAtMost($limits->cold->threshold) => -1,
                        $one->temp->isAtLeast($limits->hot->threshold) => 1,
                        default => 0,
                    },
                    [$before, $reading],
                );
                $start = $was < 0 && $touch->isKeptAtFirst($from, $to) ? $touch->keptUntil($from, $to) : $from;
                $isHot = $was > 0 && $is > 0 && $to - $from <= $hotSpan && $touch->isOnlyHot($from, $to);
                $isCold = $was < 0 && $is < 0 && $touch->isOnlyKept($from, $to);
                $sums[0] += $was === 0 && $is === 0 ? $to - $start : 0;
                $sums[1] += $isHot || $isCold ? 0 : $to - $start;
                $stay = $start === $to ? null : $side->stay($before->temp, $was, $start, $reading->temp, $is, $to);
                $sums[2] += $stay === null ? 0.0 : ($stay[1] - $stay[0]) / ExposureLine::SECOND;
            }
            foreach ($sums as $which => $sum) {
                $most[$which] = max($most[$which], $sum);
            }
        }

        return [(int) $most[0], (int) $most[1], (float) $most[2]];
    }

    /**
     * The readings of a piece before a spot was first read, whatever their spot, then that spot's own.
     *
     * @param list<TrackReading> $readings
     *
     * @return array<string, list<TrackReading>>
     */
    private static function lines(array $readings): array
    {
        $lines = [];
        foreach ($readings as $reading) {
            $lines[$reading->track] ??= array_values(
                array_filter(
                    $readings,
                    static fn (
                        TrackReading $one,
                    ): bool => $one->piece === $reading->piece && $one->order < $reading->order,
                ),
            );
            $lines[$reading->track][] = $reading;
        }

        return $lines;
    }

    /** @return array{list<string>, int} */
    private static function story(Randomizer $chance): array
    {
        $lines = ['0 '.self::STAGES[$chance->getInt(0, \count(self::STAGES) - 1)]];
        $at = 0;
        $degrees = $chance->getInt(35, 150);
        for ($count = $chance->getInt(2, 14); $count > 0; --$count) {
            $at += $chance->getInt(0, 70);
            if ($chance->getInt(0, 3) === 0) {
                $lines[] = $at.' '.self::STAGES[$chance->getInt(0, \count(self::STAGES) - 1)];
                continue;
            }
            $degrees = max(32, min(190, $degrees + $chance->getInt(-45, 45)));
            $read = $chance->getInt(0, 5) === 0 ? intdiv(($degrees - 32) * 5, 9).'c' : (string) $degrees;
            $lines[] = "$at $read p".$chance->getInt(1, 2);
        }

        return [$lines, $at + $chance->getInt(0, 120)];
    }
}
