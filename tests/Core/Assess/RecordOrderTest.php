<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\Core\Story;

/** Which events count, in which order, and where stages and batches end. */
final class RecordOrderTest extends TestCase
{
    /**
     * @param list<string> $expected ids of the counted events
     * @param list<string> $lines
     */
    #[DataProvider('orders')]
    public function testCountsEvents(array $expected, array $lines, string $asOf): void
    {
        $timeline = Timeline::of(Story::of(...$lines)->record(), Story::at($asOf));
        self::assertSame($expected, array_map(static fn ($event): string => $event->id, $timeline->events));
    }

    /** @return iterable<string, array{list<string>, list<string>, string}> */
    public static function orders(): iterable
    {
        yield 'up to the moment, included' => [['e0', 'e1'], ['0 cook', '10 100', '11 101'], '10'];
        yield 'by time, ties by the file' => [['e1', 'e3', 'e0', 'e2'], ['10 cook', '0 prep', '10 100', '5 50'], '20'];
        yield 'replaced, wherever it stands' => [['e0', 'e2'], ['0 cook', '10 100', '12 101 replaces=e1'], '20'];
        yield 'replaced by what lies ahead of the moment' => [['e0'], ['0 cook', '10 100', '90 101 replaces=e1'], '20'];
        yield 'a replacement stands at its own time' => [
            ['e2', 'e0'],
            ['0 cook', '10 100', '-5 101 replaces=e1'],
            '20',
        ];
        yield 'void' => [['e0', 'e2'], ['0 cook', '10 100', '12 void replaces=e1'], '20'];
        yield 'not revived when its replacement is void' => [
            ['e0', 'e3'],
            ['0 cook', '10 100', '12 101 replaces=e1', '13 void replaces=e2'],
            '20',
        ];
        yield 'a chain' => [['e0', 'e3'], ['0 cook', '10 100', '10 101 replaces=e1', '10 102 replaces=e2'], '20'];
        yield 'nothing at all' => [[], [], '0'];
    }

    public function testAReadingOfTheSameSecondBelongsToTheStageItIsListedIn(): void
    {
        self::assertSame('met', Story::of('0 cook', '60 145', '60 cool')->verdicts('61')['cook']);
        self::assertSame('not_shown', Story::of('0 cook', '60 cool', '60 145')->verdicts('61')['cook']);
    }

    public function testTheEndIsTheFirstOfTheClosingRow(): void
    {
        $timeline = Timeline::of(
            Story::of('0 cook', '10 serve', '20 hot_hold', '30 serve', '40 discard', '50 close')->record(),
            Story::at('60'),
        );
        self::assertSame(Story::at('30')->epoch, $timeline->end?->epoch);
        self::assertNull(Timeline::of(Story::of('0 cook', '10 serve', '20 hot_hold')->record(), Story::at('60'))->end);
    }

    public function testTheDefaultMoment(): void
    {
        $now = Story::at('9999');
        self::assertSame($now, Timeline::defaultMoment(Story::of('0 cook')->record(), $now));
        self::assertSame(
            Story::at('30')->epoch,
            Timeline::defaultMoment(Story::of('0 cook', '20 serve', '30 note')->record(), $now)->epoch,
        );
    }

    public function testNothingJudgedIsNeverFine(): void
    {
        self::assertSame('running', Story::of()->assess('0')->verdict->value);
        self::assertSame('running', Story::of('0 note')->assess('0')->verdict->value);
        self::assertSame('not_shown', Story::of('0 close')->assess('0')->verdict->value);
    }

    /** @param list<string> $suspects */
    #[DataProvider('checks')]
    public function testDoubtsReadingsOfAFailedThermometer(array $suspects, string ...$checks): void
    {
        $story = Story::of('0 hot_hold', '10 140 T1', '20 140 T1', '30 140 T2', '40 140')->withThermometer(
            'T1',
            ...$checks,
        );
        self::assertSame($suspects, $story->assess('50')->suspectReadings);
    }

    /** @return iterable<string, list<list<string>|string>> */
    public static function checks(): iterable
    {
        yield 'passed at two degrees' => [[], '0 32 34', '60 32 30'];
        yield 'failed at two and a tenth after' => [['e1', 'e2'], '60 32 34.1'];
        yield 'failed below, too' => [['e1', 'e2'], '60 32 29.9'];
        yield 'failed before' => [['e1', 'e2'], '0 32 29.9'];
        yield 'in C a degree' => [[], '0 0.0c 1.0c'];
        yield 'in C a degree and a tenth' => [['e1', 'e2'], '0 0.0c 1.1c'];
        yield 'passed between' => [['e1'], '0 32 40', '15 32 32'];
        yield 'failed and passed since' => [[], '0 32 40', '5 32 32'];
        yield 'the first check after decides, not a later one' => [[], '25 32 32', '60 32 40'];
        yield 'failed between' => [['e1', 'e2'], '15 32 40', '25 32 32'];
        yield 'at its very second it is the check before' => [['e1', 'e2'], '10 32 40', '30 32 32'];
        yield 'two checks of one second: the last of the file is the one before' => [[], '0 32 40', '0 32 32'];
        yield 'and the first of the file the one after' => [['e1', 'e2'], '30 32 40', '30 32 32'];
        yield 'counts after the moment of judging' => [['e1', 'e2'], '5000 32 40'];
        yield 'never checked' => [[]];
    }

    public function testABreachOnSuspectReadingsAloneIsNotShown(): void
    {
        $story = Story::of('0 hot_hold', '10 128 T1', '20 140 T2', '30 serve');
        self::assertSame('broken', $story->verdicts('40')['hot_hold']);
        self::assertSame('not_shown', $story->withThermometer('T1', '60 32 40')->verdicts('40')['hot_hold']);
        self::assertSame(
            'not_shown',
            Story::of('0 cold_hold', '10 50 T1')->withThermometer('T1', '60 32 40')->verdicts('40')['cold_hold'],
            'absent without them',
        );
        self::assertSame(
            'broken',
            Story::of('0 hot_hold', '10 128 T1', '20 130 T2', '30 serve')
                ->withThermometer('T1', '60 32 40')
                ->verdicts('40')['hot_hold'],
            'broken without them, too',
        );
    }

    public function testElapsedTimeIsRightAcrossAClockChange(): void
    {
        // The night of 1 November 2026 in Denver: 00:30 to 04:30 on the wall are five hours.
        $night = static fn (string $wall): string => intdiv(
            Instant::parse($wall)->epoch - Instant::parse(Story::NOON)->epoch,
            60,
        ).'';
        $story = Story::of(
            $night('2026-11-01T00:00:00-06:00').' hot_hold',
            $night('2026-11-01T00:30:00-06:00').' 140',
            $night('2026-11-01T04:30:00-07:00').' 140',
            $night('2026-11-01T04:31:00-07:00').' serve',
        );
        self::assertSame('not_shown', $story->verdicts($night('2026-11-01T05:00:00-07:00'))['hot_hold']);
    }

    /** @param list<string> $lines */
    #[DataProvider('zones')]
    public function testMeasuresTheDangerZone(
        int $estimate,
        int $least,
        int $greatest,
        array $lines,
        string $asOf,
        bool $beginsUnread = false,
    ): void {
        $zone = Story::of(...$lines)->assess($asOf)->dangerZone;
        self::assertSame(
            [$estimate, $least, $greatest, $beginsUnread],
            [$zone->estimate->seconds, $zone->least->seconds, $zone->greatest->seconds, $zone->beginsUnread],
        );
        self::assertEqualsWithDelta($estimate, array_sum($zone->byStage), \count($zone->byStage));
    }

    /** @return iterable<string, array{0: int, 1: int, 2: int, 3: list<string>, 4: string, 5?: bool}> */
    public static function zones(): iterable
    {
        yield 'the limits themselves are outside' => [0, 0, 0, ['0 cook', '0 135', '60 135'], '60'];
        yield 'inside all along' => [3600, 3600, 3600, ['0 cook', '0 100', '60 120'], '60'];
        yield 'from limit to limit' => [5640, 0, 5640, ['0 cook', '0 41', '94 135'], '94'];
        yield 'across, by straight lines' => [3760, 0, 6000, ['0 cook', '0 35', '100 185'], '100'];
        yield 'rounded to the second' => [44, 0, 60, ['0 cook', '0 131', '1 136.5'], '1'];
        yield 'in C' => [5200, 0, 6000, ['0 cook', '0 0.0c', '100 60.0c'], '100'];
        yield 'what is unread before may have been in it' => [0, 0, 3600, ['0 cook', '60 140'], '120', true];
        yield 'hot and on the heat it stays out of it for 4 h' => [0, 0, 0, ['0 cook', '0 140'], '240'];
        yield 'and no longer' => [0, 0, 14401, ['0 cook', '0 140'], '240:01'];
        yield 'hot between readings for 4 h' => [0, 0, 0, ['0 cook', '0 140', '240 150'], '240'];
        yield 'and no longer between them' => [0, 0, 14401, ['0 cook', '0 140', '240:01 150'], '240:01'];
        yield 'off the heat nothing shows it stayed hot' => [
            0,
            0,
            3600,
            ['0 cook', '0 140', '30 cool', '60 140'],
            '60',
        ];
        yield 'cold and kept so' => [0, 0, 0, ['-600 cold_hold', '-590 39', '0 cool', '60 40'], '90'];
        yield 'cold and out of it' => [0, 0, 3600, ['-600 cold_hold', '-590 39', '0 prep', '60 40'], '60'];
        yield 'still cold until it left the cold' => [
            4800,
            0,
            6000,
            ['-600 cold_hold', '-600 41', '0 prep', '100 158.5'],
            '100',
        ];
        yield 'frozen is kept' => [0, 0, 0, ['-600 freeze', '-590 10', '0 thaw', '60 40'], '90'];
        yield 'frozen, then out of it' => [0, 0, 3600, ['-600 freeze', '-590 10', '0 prep', '60 40'], '60'];
        yield 'hot into the freezer, and unread' => [0, 0, 3600, ['0 cook', '0 140', '0 freeze'], '60'];
        yield 'a tail in the freezer' => [0, 0, 0, ['0 cold_hold', '10 40', '20 freeze'], '9000'];
        yield 'readings of the piece before it was read here' => [
            3600,
            3600,
            3600,
            ['0 cook', '0 100 @bone', '60 120'],
            '60',
        ];
        yield 'of two that begin unread the estimate is only a part' => [
            3600,
            3600,
            7200,
            ['0 cook', '60 100', '120 120'],
            '120',
            true,
        ];
        yield 'one that does not is told' => [
            3900,
            3600,
            7200,
            ['0 cook', '0 100 p1', '10 134 p1', '60 100 p2', '120 120 p2', '120 136 p1'],
            '120',
        ];
        yield 'nothing read' => [0, 0, 3600, ['0 cook'], '60', true];
        yield 'nothing read in the cold' => [0, 0, 0, ['0 cold_hold'], '60'];
        yield 'the worst track' => [
            3600,
            3600,
            3600,
            ['0 cook', '0 100 p1', '0 100 p2', '30 100 p1', '60 100 p2'],
            '60',
        ];
    }
}
