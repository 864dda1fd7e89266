<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Checkpoint;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Checkpoint\ComparedTemperatures;
use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Zone\ClosedExposure;
use Verjuicer\Core\Assess\Zone\ExposureLine;
use Verjuicer\Core\Assess\Zone\StageTouch;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\ReheatingRules;
use Verjuicer\Tests\Core\Story;

/** The parts of an abridged record by themselves: an outline, the sides of limits, a line that is gone on with. */
final class OutlineTest extends TestCase
{
    /** @return iterable<string, array{int, int, int}> count, span in seconds, how long a part is */
    public static function slots(): iterable
    {
        yield 'none' => [0, 0, 0];
        yield 'few over a long time' => [4, 900_000, 0];
        yield 'one more than few' => [5, 4, 60];
        yield 'just not too long' => [500, 239, 60];
        yield 'just too long' => [500, 240, 120];
        yield 'twice that' => [500, 480, 240];
    }

    #[DataProvider('slots')]
    public function testAPartIsAsLongAsItHasToBe(int $count, int $span, int $slot): void
    {
        self::assertSame($slot, Outline::slot($count, $span, 4));
    }

    /** Of each track and stage by itself: all where they are few, the first of each part and the last where not. */
    public function testCrowdsAreThinnedAndTheRestIsNot(): void
    {
        $lines = ['0 cook oven=still set=300'];
        for ($minute = 1; $minute <= 40; ++$minute) {
            $lines[] = "$minute 100 p1";
        }
        $lines[] = '41 90 p2';
        $lines[] = '42 rest';
        array_push($lines, '43 140 p1', '44 139 p1', '45 138 p2');
        $timeline = Timeline::of(Story::of(...$lines)->record(), Story::at('50'));
        $at = static fn (array $readings): array => array_map(
            static fn (TrackReading $one): int => intdiv($one->at - Story::at('0')->epoch, 60),
            $readings,
        );
        // Sixteen minutes are a part: aligned to the clock, so that a coarser one begins where a finer one does.
        self::assertSame([1, 16, 32, 40, 41, 43, 44, 45], $at(Outline::of($timeline, 4)));
        self::assertSame($timeline->readings->all(), Outline::of($timeline), 'a hundred are few');
    }

    /** What stands in a coarser outline stands in a finer one: so a record may be abridged again and again. */
    public function testACoarserOutlineIsPartOfAFinerOne(): void
    {
        $chance = new Randomizer(new Mt19937(3));
        $lines = ['0 cook oven=still set=300'];
        for ($minute = 1; $minute < 900; $minute += $chance->getInt(1, 9)) {
            $lines[] = $minute.' 100 p'.$chance->getInt(1, 2);
        }
        $timeline = Timeline::of(Story::of(...$lines)->record(), Story::at('1000'));
        $ids = static fn (int $few): array => array_column(Outline::of($timeline, $few), 'id');
        foreach ([[2, 4], [4, 9], [9, 40], [40, 100]] as [$coarse, $fine]) {
            self::assertSame([], array_diff($ids($coarse), $ids($fine)), "$coarse and $fine");
            self::assertLessThanOrEqual(\count($ids($fine)), \count($ids($coarse)));
        }
    }

    /** @return iterable<array{string}> */
    public static function products(): iterable
    {
        yield ['beef cut'];
        yield ['lamb roast 6kg'];
        yield ['turkey roast'];
        yield ['pork rte_commercial'];
        yield ['none side'];
    }

    /** Which side of a limit a reading is on is what the limit itself says, at it and a tenth beside it. */
    #[DataProvider('products')]
    public function testSidesAreThoseOfTheLimits(string $product): void
    {
        $rules = Story::rules();
        $limits = new ComparedTemperatures($rules, Story::of()->about($product)->record()->product);
        $known = [
            $rules->limits()->cold->threshold,
            $rules->limits()->hot->threshold,
            $rules->limits()->hotRoast->threshold,
            $rules->get(CoolingRules::class)->middle->threshold,
            $rules->get(ReheatingRules::class)->own->threshold,
            $rules->get(ReheatingRules::class)->commercial->threshold,
        ];
        foreach (TemperatureUnit::cases() as $unit) {
            for ($tenths = -50; $tenths < 2200; ++$tenths) {
                $temp = Temperature::ofTenths($tenths, $unit);
                $sides = $limits->sides(new TrackReading('r', 0, 0, $temp, 1, 'core', '1/core', null));
                foreach ($known as $place => $limit) {
                    if ($sides[$place] !== $limit->compare($temp)) {
                        self::fail("{$temp->number()} {$unit->value} and limit $place");
                    }
                }
                foreach ($limits->rows as $place => $row) {
                    if ($sides[$limits->firstRow + $place] !== $row->temperature->compare($temp)) {
                        self::fail("{$temp->number()} {$unit->value} and row $place");
                    }
                }
            }
        }
        $this->addToAssertionCount(1);
    }

    /** A line that is cut anywhere, written down and gone on with comes to what it comes to in one go. */
    public function testALineGoesOnFromWhereItStands(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            $chance = new Randomizer(new Mt19937($seed));
            $lines = ['0 cold_hold'];
            $temp = 38.0;
            $stages = ['cook oven=still set=300', 'rest', 'hot_hold', 'cool', 'cold_hold', 'reheat for=hot_hold'];
            for ($minute = 1; $minute < 600; $minute += $chance->getInt(0, 25)) {
                $temp = max(33.0, min(190.0, $temp + $chance->getInt(-250, 300) / 10));
                $unit = $chance->getInt(0, 3) === 0;
                $lines[] = $chance->getInt(0, 8) === 0
                    ? "$minute ".$stages[$chance->getInt(0, 5)]
                    : \sprintf($unit ? '%d %.1fc' : '%d %.1f', $minute, $unit ? ($temp - 32) / 1.8 : $temp);
            }
            $record = Story::of(...$lines)->record();
            $timeline = Timeline::of($record, Story::at('700'));
            $case = new CaseFile($record->site, $record->product, Story::rules(), $timeline, $timeline->readings);
            $touch = new StageTouch($timeline);
            $readings = $timeline->readings;
            $cut = $chance->getInt(1, $readings->size() - 1);
            self::assertGreaterThan(0, $cut);
            $whole = ClosedExposure::of(ExposureLine::through(null, [$readings], $case, $touch), $case, $touch);
            $begun = ExposureLine::through(null, [$readings->slice(0, $cut)], $case, $touch);
            /** @var array{int, int, int, int, int, int, array<string, int>, int, int, int, string, int, int} $data */
            $data = json_decode(json_encode($begun->toData(), \JSON_THROW_ON_ERROR), true);
            $ended = ExposureLine::through(
                ExposureLine::ofData($data),
                [$readings->slice($cut, $readings->size())],
                $case,
                $touch,
            );
            self::assertEquals($whole, ClosedExposure::of($ended, $case, $touch), "seed $seed, cut at $cut");
        }
    }
}
