<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** From hot to cold, in two gates, by the readings there are. */
final class CoolingCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $cool = static fn (string ...$lines): array => self::cooked('0 cool', ...array_values($lines));
        yield 'met at the very limits' => [
            'cool.stage1',
            'met',
            $cool('0 135', '1 134.9', '120 70.0', '360 41.0'),
            '400',
        ];
        yield 'and in all' => ['cool.total', 'met', $cool('0 135', '1 134.9', '120 70.0', '360 41.0'), '400'];
        yield 'a second late is not shown' => [
            'cool.stage1',
            'not_shown',
            $cool('0 135', '1 134.9', '60 100', '120:01 70'),
            '400',
        ];
        yield 'a tenth above is not there' => [
            'cool.stage1',
            'not_shown',
            $cool('0 135', '1 134.9', '120 70.1', '121 69'),
            '400',
        ];
        yield 'shown late by a second' => [
            'cool.stage1',
            'broken',
            $cool('0 135', '1 134', '121:01 71', '130 60'),
            '400',
        ];
        yield 'late by exactly the limit is not' => [
            'cool.stage1',
            'not_shown',
            $cool('0 135', '1 134', '121 71', '130 60'),
            '400',
        ];
        yield 'in C it is 21 and 5' => ['cool.stage1', 'met', $cool('0 57.0c', '1 56.9c', '120 21.0c'), '400'];
        yield 'in C not at 21.1' => ['cool.stage1', 'running', $cool('0 57.0c', '1 56.9c', '119 21.1c'), '120'];
        yield 'total broken' => ['cool.total', 'broken', $cool('0 136', '5 130', '60 60', '366 42'), '400'];
        yield 'running to the second' => ['cool.stage1', 'running', $cool('0 135', '10 120'), '120'];
        yield 'overdue a second later' => ['cool.stage1', 'not_shown', $cool('0 135', '10 120'), '120:01'];
        yield 'stopped before its limit' => ['cool.stage1', 'stopped', $cool('0 135', '10 120', '120 serve'), '200'];
        yield 'over after its limit, unread' => [
            'cool.stage1',
            'not_shown',
            $cool('0 135', '10 120', '121 serve'),
            '200',
        ];
        yield 'still warm two hours after it was first under' => [
            'cool.stage1',
            'broken',
            $cool('0 135', '10 130', '130:01 71'),
            '140',
        ];
        yield 'counts from the last hot reading of the track, before the block' => [
            'cool.stage1',
            'not_shown',
            self::cooked('-10 140', '0 cool', '5 134', '110:01 70'),
            '120',
        ];
        yield 'else of another track' => [
            'cool.stage1',
            'met',
            ['-200 cook', '-100 170 p1', '0 cool', '10 136 p1', '20 130 p2', '130 70 p2'],
            '140',
            'beef cut 2pieces',
        ];
        yield 'else from the start of the block' => [
            'cool.stage1',
            'met',
            ['-200 cook', '0 cool', '20 130', '120 70'],
            '140',
        ];
        yield 'a rest that fell under the hot limit cools, whoever calls it rest' => [
            'cool.stage1',
            'not_shown',
            self::cooked('0 rest', '30 140', '200 134.9'),
            '210',
        ];
        yield 'a rest at the hot limit does not' => [
            'cool.stage1',
            'none',
            self::cooked('0 rest', '30 140', '100 135'),
            '110',
        ];
        yield 'not read on the way into the cold' => ['cool.total', 'running', self::cooked('0 cold_hold'), '260'];
        yield 'and too long' => ['cool.total', 'not_shown', self::cooked('0 cold_hold'), '260:01'];
        yield 'not read, ended in time' => ['cool.stage1', 'stopped', self::cooked('0 cool', '10 serve'), '500'];
        yield 'raw meat in the cold is no cooling' => [
            'cool.stage1',
            'none',
            ['0 received temp=40', '1 cold_hold', '10 40'],
            '20',
        ];
        yield 'each track is judged' => [
            'cool.stage1',
            'broken',
            $cool('0 135 p1', '0 135 p2', '1 134 p1', '1 134 p2', '60 70 p1', '130 71 p2'),
            '140',
            'beef cut 2pieces',
        ];
        yield 'a roast counts from its own hot limit' => [
            'cool.stage1',
            'met',
            ['-200 cook oven=still set=350', '-100 140', '-85 140', '-5 132', '0 cool', '20 129', '110 70'],
            '140',
            'lamb roast 3kg',
        ];
        yield 'a hot reading of another track begins nothing anew' => [
            'cool.stage1',
            'not_shown',
            ['-200 cook', '-101 170 p1', '-100 170 p2', '0 cool', '10 140 p1', '60 150 p2', '70 130 p1', '131 70 p1'],
            '132',
            'beef cut 2pieces',
        ];
        yield 'straight into the freezer counts as cooling' => [
            'cool.total',
            'running',
            self::cooked('0 freeze'),
            '10',
        ];
        yield 'and too long, unread' => ['cool.total', 'not_shown', self::cooked('0 freeze'), '260:01'];
    }

    public function testReheatingOnceIsOfferedWhileTheFirstGateIsAheadAndNotAfterIt(): void
    {
        $cooling = self::cooked('0 cool', '0 135', '10 120');
        self::assertSame(['cool.faster', 'cool.reheat_once'], self::options('cool.stage1', $cooling, '120'));
        self::assertSame(
            ['cool.decide', 'discard'],
            self::options('cool.stage1', $cooling, '120:01'),
            'no reading can show it any more',
        );
        self::assertSame(['cool.faster'], self::options('cool.total', $cooling, '120'), 'not for the second gate');
        self::assertSame(
            ['discard'],
            self::options('cool.stage1', self::cooked('0 cool', '0 135', '1 134', '130 71'), '131'),
        );
        self::assertSame(
            ['cool.decide'],
            self::options('cool.stage1', self::cooked('0 cool', '0 135', '1 134', '121:01 69'), '122'),
            'no reading can show it any more',
        );
        self::assertSame(['cool.read_now'], self::options('cool.stage1', self::cooked('0 cool'), '10'));
        self::assertSame(
            ['cool.read_now', 'discard'],
            self::options('cool.total', self::cooked('0 cold_hold'), '260:01'),
            'it may yet be shown hot',
        );
        self::assertSame(['discard'], self::options('cool.total', self::cooked('0 cold_hold', '261 serve'), '262'));
    }

    public function testWhatIsServedRareUnderTheAdvisoryIsNotToldToCool(): void
    {
        $rare = ['-200 cook oven=still set=350', '-5 125', '0 rest', '10 127'];
        $roast = 'beef roast 3kg advisory';
        self::assertSame(['cook.serve_under_advisory'], self::options('cool.stage1', $rare, '20', $roast));
        self::assertSame(
            ['cook.serve_under_advisory', 'cook.back_on_heat', 'discard'],
            self::options('cook', [...$rare, '15 hot_hold'], '20', $roast),
        );
        self::assertSame(
            ['cool.faster', 'cool.reheat_once'],
            self::options('cool.stage1', $rare, '20', 'beef roast 3kg'),
        );
        self::assertSame(
            ['cool.faster', 'cool.reheat_once'],
            self::options('cool.stage1', [...$rare, '15 cool'], '20', $roast),
            'once it is put to cool, it is',
        );
    }
}
