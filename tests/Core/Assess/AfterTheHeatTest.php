<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\Core\Story;

/** Resting, holding, cooling, reheating, serving by time, and the date: each rule at its limits. */
final class AfterTheHeatTest extends TestCase
{
    private const COOKED = ['-200 cook', '-100 170'];

    /** @param list<string> $lines */
    #[DataProvider('cases')]
    public function testJudges(string $rule, string $expected, array $lines, string $asOf, string $product = 'beef cut'): void
    {
        self::assertSame($expected, Story::of(...$lines)->about($product)->verdicts($asOf)[$rule] ?? 'none');
    }

    /** @return iterable<string, array{0: string, 1: string, 2: list<string>, 3: string, 4?: string}> */
    public static function cases(): iterable
    {
        foreach ([self::receiving(), self::hotHolds(), self::coolings(), self::rests(), self::coldHolds(), self::reheats(), self::timeControls()] as $cases) {
            foreach ($cases as $name => $case) {
                yield $case[0].': '.$name => $case;
            }
        }
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    private static function receiving(): iterable
    {
        foreach (['41.0' => 'met', '41.1' => 'broken', '5.0c' => 'met', '5.1c' => 'broken'] as $temp => $verdict) {
            yield "received at $temp" => ['receiving', $verdict, ["0 received temp=$temp"], '1'];
        }
        yield 'received frozen' => ['receiving', 'met', ['0 received frozen=true'], '1'];
        yield 'frozen, and at 32' => ['receiving', 'met', ['0 received temp=32 frozen=true'], '1'];
        yield 'frozen, and a tenth over' => ['receiving', 'broken', ['0 received temp=32.1 frozen=true'], '1'];
        yield 'frozen, and at 0 C' => ['receiving', 'met', ['0 received temp=0.0c frozen=true'], '1'];
        yield 'frozen, and a tenth over in C' => ['receiving', 'broken', ['0 received temp=0.1c frozen=true'], '1'];
        yield 'bought in hot' => ['receiving', 'met', ['0 received temp=135'], '1', 'pork rte_commercial'];
        yield 'bought in a tenth under hot' => ['receiving', 'broken', ['0 received temp=134.9'], '1', 'pork rte_commercial'];
        yield 'bought in hot in C' => ['receiving', 'met', ['0 received temp=57.0c'], '1', 'pork rte_commercial'];
        yield 'raw meat is not received hot' => ['receiving', 'broken', ['0 received temp=140'], '1'];
        yield 'thawed in the cold' => ['thaw', 'met', ['0 thaw', '60 41', '600 prep'], '700'];
        yield 'thawing in the cold' => ['thaw', 'running', ['0 thaw', '60 41'], '700'];
        yield 'thawed a tenth too warm' => ['thaw', 'broken', ['0 thaw method=refrigerated', '60 41.1', '600 prep'], '700'];
        yield 'thawed unread' => ['thaw', 'none', ['0 thaw', '600 prep'], '700'];
        yield 'in water of 70' => ['thaw', 'met', ['0 thaw method=running_water', '60 70', '300 prep'], '700'];
        yield 'in water a tenth warmer' => ['thaw', 'broken', ['0 thaw method=running_water', '60 70.1', '300 prep'], '700'];
        yield 'in water above 41 for 4 h' => ['thaw', 'met', ['0 thaw method=running_water', '60 41.1', '300 prep'], '700'];
        yield 'a second longer' => ['thaw', 'broken', ['0 thaw method=running_water', '60 41.1', '300:01 prep'], '700'];
        yield 'in water for hours, and cold' => ['thaw', 'met', ['0 thaw method=running_water', '60 41', '900 prep'], '1000'];
        yield 'still in water in time' => ['thaw', 'running', ['0 thaw method=running_water', '60 50'], '300'];
        yield 'still in water too long' => ['thaw', 'broken', ['0 thaw method=running_water', '60 50'], '300:01'];
        yield 'a word of the house is not running water' => ['thaw', 'broken', ['0 thaw method=sink', '60 50', '90 prep'], '100'];
        yield 'received unread' => ['receiving', 'not_shown', ['0 received'], '1'];
    }

    /** @return iterable<string, array{0: string, 1: string, 2: list<string>, 3: string, 4?: string}> */
    private static function hotHolds(): iterable
    {
        $hold = static fn (string ...$lines): array => [...self::COOKED, '0 hot_hold', ...array_values($lines)];
        foreach (['135.0' => 'met', '134.9' => 'broken', '57.0c' => 'met', '56.9c' => 'broken'] as $temp => $verdict) {
            yield "held at $temp" => ['hot_hold', $verdict, $hold("10 $temp", '60 serve'), '60'];
        }
        yield 'not read for 4 h, open' => ['hot_hold', 'running', $hold(), '240'];
        yield 'a second longer' => ['hot_hold', 'not_shown', $hold(), '240:01'];
        yield 'never read, over' => ['hot_hold', 'not_shown', $hold('10 serve'), '60'];
        yield '4 h to the first, between and to the end' => ['hot_hold', 'met', $hold('240 140', '480 140', '720 serve'), '720'];
        yield 'a second more to the first' => ['hot_hold', 'not_shown', $hold('240:01 140', '300 serve'), '300'];
        yield 'a second more to the end' => ['hot_hold', 'not_shown', $hold('10 140', '250:01 serve'), '300'];
        yield 'tracks together show the hold' => ['hot_hold', 'met', $hold('100 140 p1', '300 140 p2', '480 serve'), '480', 'beef cut 2pieces'];
        $roast = static fn (string $reading, string ...$more): array => ['-200 cook oven=still set=350', '-100 140', '-85 140', '0 hot_hold', "10 $reading", '60 serve', ...array_values($more)];
        yield 'a roast by the table at 130' => ['hot_hold', 'met', $roast('130.0'), '60', 'lamb roast 3kg'];
        yield 'a tenth under' => ['hot_hold', 'broken', $roast('129.9'), '60', 'lamb roast 3kg'];
        yield 'a roast at 54 C' => ['hot_hold', 'met', $roast('54.0c'), '60', 'lamb roast 3kg'];
        yield 'injected anywhere in the record, even after' => ['hot_hold', 'broken', $roast('130.0', '61 inject'), '70', 'lamb roast 3kg'];
        yield 'not a roast' => ['hot_hold', 'broken', $roast('130.0'), '60', 'lamb cut 3kg'];
        yield 'a roast whose cook was not shown' => ['hot_hold', 'broken', ['-200 cook oven=still set=350', '-100 140', '0 hot_hold', '10 130', '60 serve'], '60', 'lamb roast 3kg'];
        yield 'a roast outside the oven conditions' => ['hot_hold', 'broken', ['-200 cook oven=still set=225', '-100 160', '0 hot_hold', '10 130', '60 serve'], '60', 'lamb roast 3kg'];
    }

    /** @return iterable<string, array{0: string, 1: string, 2: list<string>, 3: string, 4?: string}> */
    private static function coolings(): iterable
    {
        $cool = static fn (string ...$lines): array => [...self::COOKED, '0 cool', ...array_values($lines)];
        yield 'met at the very limits' => ['cool.stage1', 'met', $cool('0 135', '1 134.9', '120 70.0', '360 41.0'), '400'];
        yield 'and in all' => ['cool.total', 'met', $cool('0 135', '1 134.9', '120 70.0', '360 41.0'), '400'];
        yield 'a second late is not shown' => ['cool.stage1', 'not_shown', $cool('0 135', '1 134.9', '60 100', '120:01 70'), '400'];
        yield 'a tenth above is not there' => ['cool.stage1', 'not_shown', $cool('0 135', '1 134.9', '120 70.1', '121 69'), '400'];
        yield 'shown late by a second' => ['cool.stage1', 'broken', $cool('0 135', '1 134', '121:01 71', '130 60'), '400'];
        yield 'late by exactly the limit is not' => ['cool.stage1', 'not_shown', $cool('0 135', '1 134', '121 71', '130 60'), '400'];
        yield 'in C it is 21 and 5' => ['cool.stage1', 'met', $cool('0 57.0c', '1 56.9c', '120 21.0c'), '400'];
        yield 'in C not at 21.1' => ['cool.stage1', 'running', $cool('0 57.0c', '1 56.9c', '119 21.1c'), '120'];
        yield 'total broken' => ['cool.total', 'broken', $cool('0 136', '5 130', '60 60', '366 42'), '400'];
        yield 'running to the second' => ['cool.stage1', 'running', $cool('0 135', '10 120'), '120'];
        yield 'overdue a second later' => ['cool.stage1', 'not_shown', $cool('0 135', '10 120'), '120:01'];
        yield 'stopped before its limit' => ['cool.stage1', 'stopped', $cool('0 135', '10 120', '120 serve'), '200'];
        yield 'over after its limit, unread' => ['cool.stage1', 'not_shown', $cool('0 135', '10 120', '121 serve'), '200'];
        yield 'still warm two hours after it was first under' => ['cool.stage1', 'broken', $cool('0 135', '10 130', '130:01 71'), '140'];
        yield 'counts from the last hot reading of the track, before the block' => ['cool.stage1', 'not_shown', [...self::COOKED, '-10 140', '0 cool', '5 134', '110:01 70'], '120'];
        yield 'else of another track' => ['cool.stage1', 'met', ['-200 cook', '-100 170 p1', '0 cool', '10 136 p1', '20 130 p2', '130 70 p2'], '140', 'beef cut 2pieces'];
        yield 'else from the start of the block' => ['cool.stage1', 'met', ['-200 cook', '0 cool', '20 130', '120 70'], '140'];
        yield 'a rest that fell under the hot limit cools, whoever calls it rest' => ['cool.stage1', 'not_shown', [...self::COOKED, '0 rest', '30 140', '200 134.9'], '210'];
        yield 'a rest at the hot limit does not' => ['cool.stage1', 'none', [...self::COOKED, '0 rest', '30 140', '100 135'], '110'];
        yield 'not read on the way into the cold' => ['cool.total', 'running', [...self::COOKED, '0 cold_hold'], '260'];
        yield 'and too long' => ['cool.total', 'not_shown', [...self::COOKED, '0 cold_hold'], '260:01'];
        yield 'not read, ended in time' => ['cool.stage1', 'stopped', [...self::COOKED, '0 cool', '10 serve'], '500'];
        yield 'raw meat in the cold is no cooling' => ['cool.stage1', 'none', ['0 received temp=40', '1 cold_hold', '10 40'], '20'];
        yield 'each track is judged' => ['cool.stage1', 'broken', $cool('0 135 p1', '0 135 p2', '1 134 p1', '1 134 p2', '60 70 p1', '130 71 p2'), '140', 'beef cut 2pieces'];
        yield 'a roast counts from its own hot limit' => ['cool.stage1', 'met', ['-200 cook oven=still set=350', '-100 140', '-85 140', '-5 132', '0 cool', '20 129', '110 70'], '140', 'lamb roast 3kg'];
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    private static function rests(): iterable
    {
        $rest = static fn (string ...$lines): array => [...self::COOKED, '0 rest', ...array_values($lines)];
        yield 'unread for 2 h, open' => ['rest', 'running', $rest(), '120'];
        yield 'a second longer' => ['rest', 'not_shown', $rest(), '120:01'];
        yield 'read every 2 h' => ['rest', 'met', $rest('120 150', '240 140', '360 serve'), '400'];
        yield 'a gap of a second more' => ['rest', 'not_shown', $rest('120 150', '240:01 140', '300 serve'), '400'];
        yield 'read under the limit: cooling takes over' => ['rest', 'none', $rest('60 134.9'), '70'];
        yield 'prep after the heat is such a rest' => ['rest', 'running', [...self::COOKED, '0 prep'], '60'];
        yield 'with a cooling stage it is none' => ['rest', 'none', $rest('10 cool'), '60'];
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    private static function coldHolds(): iterable
    {
        yield 'raw, at the limit' => ['cold_hold', 'met', ['0 cold_hold', '10 41.0'], '20'];
        yield 'raw, a tenth above' => ['cold_hold', 'broken', ['0 cold_hold', '10 41.1', '20 38'], '30'];
        yield 'raw, unread' => ['cold_hold', 'none', ['0 cold_hold'], '20'];
        yield 'on its way down nothing is asked' => ['cold_hold', 'none', [...self::COOKED, '0 cold_hold', '10 120', '60 60'], '70'];
        yield 'once cold it stays cold' => ['cold_hold', 'broken', [...self::COOKED, '0 cold_hold', '10 120', '60 41', '90 41.1'], '100'];
        yield 'warm again in prep is no cold hold' => ['cold_hold', 'none', [...self::COOKED, '0 cool', '60 41', '70 prep', '90 50'], '100'];
        yield 'another track was cold' => ['cold_hold', 'none', [...self::COOKED, '0 cold_hold', '10 40 p1', '20 60 p2'], '30'];
        yield 'after a thaw it is a plain hold' => ['cold_hold', 'met', [...self::COOKED, '0 cool', '60 41', '70 freeze', '900 thaw', '1000 cold_hold', '1010 40'], '1020'];
    }

    /** @return iterable<string, array{0: string, 1: string, 2: list<string>, 3: string, 4?: string}> */
    private static function reheats(): iterable
    {
        $reheat = static fn (string ...$lines): array => ['-60 cold_hold', '-10 40', '0 reheat for=hot_hold', ...array_values($lines)];
        yield 'in time to the second' => ['reheat', 'met', $reheat('120 165.0'), '130'];
        yield 'a second late, perhaps' => ['reheat', 'not_shown', $reheat('120:01 165'), '130'];
        yield 'a tenth short' => ['reheat', 'running', $reheat('110 164.9'), '120'];
        yield 'in C it is 74' => ['reheat', 'met', $reheat('110 74.0c'), '120'];
        yield 'shown late' => ['reheat', 'broken', $reheat('1 50', '121:01 160', '125 165'), '130'];
        yield 'unread and open' => ['reheat', 'running', $reheat(), '120'];
        yield 'unread too long' => ['reheat', 'not_shown', $reheat(), '120:01'];
        yield 'unread and over' => ['reheat', 'not_shown', $reheat('10 hot_hold'), '20'];
        yield 'counts from the last cold reading' => ['reheat', 'met', $reheat('30 41', '40 60', '150 165'), '160'];
        yield 'not reached, thrown away in time' => ['reheat', 'stopped', $reheat('60 120', '100 discard'), '200'];
        yield 'not reached, thrown away late' => ['reheat', 'not_shown', $reheat('60 120', '121 discard'), '200'];
        yield 'not reached, held anyway' => ['reheat', 'not_shown', $reheat('60 120', '100 hot_hold'), '110'];
        yield 'not reached after two warm hours' => ['reheat', 'broken', $reheat('1 50', '121:01 160'), '125'];
        yield 'commercial needs 135 only' => ['reheat', 'met', $reheat('60 135'), '70', 'pork rte_commercial'];
        yield 'for service at once there is no target' => ['reheat', 'none', ['0 reheat for=immediate', '10 60'], '20'];
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    private static function timeControls(): iterable
    {
        $out = static fn (string $plan, string ...$lines): array => ['-60 hot_hold', ...array_values($lines), "0 time_control plan=$plan"];
        foreach (['-30 135.0' => 'running', '-30:01 135' => 'not_shown', '-10 134.9' => 'broken', '-10 57.0c' => 'running'] as $reading => $verdict) {
            yield "hot start, $reading" => ['time_control', $verdict, $out('hot_4h', str_replace('-30:01', '-31', $reading)), '60'];
        }
        yield 'read five minutes after' => ['time_control', 'running', [...$out('hot_4h'), '5 140'], '60'];
        yield 'read a second later is no start' => ['time_control', 'not_shown', [...$out('hot_4h'), '5:01 140'], '60'];
        yield 'the last reading around the start decides' => ['time_control', 'broken', [...$out('hot_4h', '-10 140'), '2 134'], '60'];
        yield 'unread within its five minutes' => ['time_control', 'running', $out('hot_4h'), '5'];
        yield 'unread a second later' => ['time_control', 'not_shown', $out('hot_4h'), '5:01'];
        yield 'cold start at 41' => ['time_control', 'running', $out('cold_4h', '-5 41.0'), '60'];
        yield 'cold start above' => ['time_control', 'broken', $out('cold_4h', '-5 41.1'), '60'];
        yield '4 h to the second' => ['time_control', 'met', [...$out('hot_4h', '-5 140'), '240 discard'], '300'];
        yield 'a second longer' => ['time_control', 'broken', [...$out('hot_4h', '-5 140'), '240:01 discard'], '300'];
        yield 'still out' => ['time_control', 'broken', $out('hot_4h', '-5 140'), '240:01'];
        yield '6 h, read' => ['time_control', 'met', [...$out('cold_6h', '-5 40'), '200 70.0', '360 serve'], '400'];
        yield '6 h, over 70' => ['time_control', 'broken', [...$out('cold_6h', '-5 40'), '200 70.1'], '210'];
        yield '6 h, unread after 4' => ['time_control', 'not_shown', $out('cold_6h', '-5 40'), '240:01'];
        yield '6 h, unread at 4' => ['time_control', 'running', $out('cold_6h', '-5 40'), '240'];
        yield 'returned to the heat' => ['time_control', 'broken', [...$out('hot_4h', '-5 140'), '60 hot_hold'], '61'];
        yield 'closed' => ['time_control', 'met', [...$out('hot_4h', '-5 140'), '60 close'], '61'];
    }

    #[DataProvider('dates')]
    public function testMarksTheDate(string $expected, string $zone, string $cookEnds, string $asOf, string ...$more): void
    {
        $minutes = static function (string $time): string {
            $seconds = Instant::parse($time)->epoch - Story::at('0')->epoch;

            return intdiv($seconds, 60).':'.$seconds % 60;
        };
        $lines = ['-90000 cook', $minutes($cookEnds).' cold_hold'];
        foreach ($more as $line) {
            [$time, $type] = explode(' ', $line);
            $lines[] = $minutes($time).' '.$type;
        }
        $verdicts = Story::of(...$lines)->in($zone)->verdicts($minutes($asOf));
        self::assertSame($expected, $verdicts['date_mark'] ?? 'none');
    }

    /** @return iterable<string, list<string>> */
    public static function dates(): iterable
    {
        $denver = 'America/Denver';
        yield '24 h are not more' => ['none', $denver, '2026-10-28T20:00:00-06:00', '2026-10-29T20:00:00-06:00'];
        yield 'a second more' => ['running', $denver, '2026-10-28T20:00:00-06:00', '2026-10-29T20:00:01-06:00'];
        yield 'the last second of day 7, the clocks having gone back' => ['running', $denver, '2026-10-28T23:59:59-06:00', '2026-11-03T23:59:59-07:00'];
        yield 'the first second of day 8' => ['broken', $denver, '2026-10-28T23:59:59-06:00', '2026-11-04T00:00:00-07:00'];
        yield 'a night batch belongs to the date it came off the heat' => ['running', $denver, '2026-10-29T00:10:00-06:00', '2026-11-04T23:59:59-07:00'];
        yield 'spring forward' => ['broken', $denver, '2026-03-05T12:00:00-07:00', '2026-03-12T00:00:00-06:00'];
        yield 'by the zone of the site' => ['broken', 'Pacific/Auckland', '2026-10-28T23:59:59+13:00', '2026-11-04T00:00:00+13:00'];
        yield 'frozen days do not count' => ['running', $denver, '2026-10-28T12:00:00-06:00', '2026-11-05T23:59:59-07:00', '2026-10-29T23:00:00-06:00 freeze', '2026-11-01T01:00:00-07:00 thaw'];
        yield 'two whole days are two' => ['broken', $denver, '2026-10-28T12:00:00-06:00', '2026-11-06T00:00:00-07:00', '2026-10-29T23:00:00-06:00 freeze', '2026-11-01T01:00:00-07:00 thaw'];
        yield 'still frozen' => ['running', $denver, '2026-10-28T12:00:00-06:00', '2026-12-24T00:00:00-07:00', '2026-10-29T23:00:00-06:00 freeze'];
        yield 'served in time, looked at later' => ['met', $denver, '2026-10-28T12:00:00-06:00', '2026-12-24T00:00:00-07:00', '2026-11-03T23:59:59-07:00 serve'];
        yield 'served too late' => ['broken', $denver, '2026-10-28T12:00:00-06:00', '2026-12-24T00:00:00-07:00', '2026-11-04T00:00:00-07:00 serve', '2026-11-05T00:00:00-07:00 close'];
    }
}
