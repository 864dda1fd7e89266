<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\Core\Story;

/** The date marks what was prepared, frozen days left out. */
final class DateMarkCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'raw meat has none' => ['date_mark', 'none', ['0 received temp=40', '1 cold_hold', '10 40'], '90000'];
        yield 'nor has what is still on the heat' => ['date_mark', 'none', ['0 cook'], '90000'];
        yield 'bought in and kept closed it has none' => [
            'date_mark',
            'none',
            ['0 received temp=40', '1 cold_hold', '10 40'],
            '90000',
            'pork rte_commercial',
        ];
        yield 'opened, it has' => [
            'date_mark',
            'running',
            ['0 received temp=40', '1 cold_hold', '10 opened'],
            '1460',
            'pork rte_commercial',
        ];
        yield 'and its seven days' => [
            'date_mark',
            'broken',
            ['0 received temp=40', '1 cold_hold', '10 opened'],
            '90000',
            'pork rte_commercial',
        ];
    }

    /** 3-501.17 asks for the mark, 3-501.18(A) says what becomes of food past it. */
    #[TestWith(['5000', '3-501.17'])]
    #[TestWith(['90000', '3-501.18(A)'])]
    public function testCitesWhatItIsJudgedBy(string $asOf, string $section): void
    {
        $cited = [];
        foreach (Story::of('0 cook', '300 cold_hold')->assess($asOf)->findings as $finding) {
            if ($finding->rule === 'date_mark') {
                $cited[] = $finding->citation;
            }
        }
        self::assertSame([$section], $cited);
    }

    #[DataProvider('dates')]
    public function testMarksTheDate(
        string $expected,
        string $zone,
        string $cookEnds,
        string $asOf,
        string ...$more,
    ): void {
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
        yield 'the last second of day 7, the clocks having gone back' => [
            'running',
            $denver,
            '2026-10-28T23:59:59-06:00',
            '2026-11-03T23:59:59-07:00',
        ];
        yield 'the first second of day 8' => [
            'broken',
            $denver,
            '2026-10-28T23:59:59-06:00',
            '2026-11-04T00:00:00-07:00',
        ];
        yield 'a night batch belongs to the date it came off the heat' => [
            'running',
            $denver,
            '2026-10-29T00:10:00-06:00',
            '2026-11-04T23:59:59-07:00',
        ];
        yield 'spring forward' => ['broken', $denver, '2026-03-05T12:00:00-07:00', '2026-03-12T00:00:00-06:00'];
        yield 'by the zone of the site' => [
            'broken',
            'Pacific/Auckland',
            '2026-10-28T23:59:59+13:00',
            '2026-11-04T00:00:00+13:00',
        ];
        yield 'frozen days do not count' => [
            'running',
            $denver,
            '2026-10-28T12:00:00-06:00',
            '2026-11-05T23:59:59-07:00',
            '2026-10-29T23:00:00-06:00 freeze',
            '2026-11-01T01:00:00-07:00 thaw',
        ];
        yield 'two whole days are two' => [
            'broken',
            $denver,
            '2026-10-28T12:00:00-06:00',
            '2026-11-06T00:00:00-07:00',
            '2026-10-29T23:00:00-06:00 freeze',
            '2026-11-01T01:00:00-07:00 thaw',
        ];
        yield 'still frozen' => [
            'running',
            $denver,
            '2026-10-28T12:00:00-06:00',
            '2026-12-24T00:00:00-07:00',
            '2026-10-29T23:00:00-06:00 freeze',
        ];
        yield 'served in time, looked at later' => [
            'met',
            $denver,
            '2026-10-28T12:00:00-06:00',
            '2026-12-24T00:00:00-07:00',
            '2026-11-03T23:59:59-07:00 serve',
        ];
        yield 'served too late' => [
            'broken',
            $denver,
            '2026-10-28T12:00:00-06:00',
            '2026-12-24T00:00:00-07:00',
            '2026-11-04T00:00:00-07:00 serve',
            '2026-11-05T00:00:00-07:00 close',
        ];
    }
}
