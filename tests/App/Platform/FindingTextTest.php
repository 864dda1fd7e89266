<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Tests\Core\Story;

/** Every finding says what is shown, what is not and by when, in words a cook understands, with its figures right. */
final class FindingTextTest extends KernelTestCase
{
    /**
     * @param list<string> $lines
     * @param list<array{string, string, string}> $expected rule, verdict, sentence
     */
    #[DataProvider('stories')]
    public function testTellsWhatTheRecordShows(string $product, string $asOf, array $lines, array $expected): void
    {
        $text = self::getContainer()->get(FindingText::class);
        self::assertInstanceOf(FindingText::class, $text);
        $assessment = Story::of(...$lines)->about($product)->assess($asOf);
        $told = array_map(
            static fn (Finding $finding): array => [
                $finding->rule,
                $finding->verdict->value ?? 'caution',
                $text->sentence($finding, $assessment),
            ],
            $assessment->findings,
        );
        self::assertSame(
            $expected,
            array_values(array_filter($told, static fn (array $one): bool => $one[0] !== 'thermometer.unchecked')),
        );
        foreach ($assessment->findings as $finding) {
            self::assertStringNotContainsString(
                '{',
                $text->sentence($finding, $assessment).implode('', $text->options($finding, $assessment)),
                'no figure is left out',
            );
            if ($finding->verdict?->value === 'broken') {
                self::assertNotSame([], $text->options($finding, $assessment), 'a breach says what can be done');
            }
        }
    }

    /** @return iterable<array{string, string, list<string>, list<array{string, string, string}>}> */
    public static function stories(): iterable
    {
        yield [
            'beef cut',
            '30',
            ['0 received temp=40', '5 cold_hold', '20 39'],
            [
                ['receiving', 'met', 'Received at 40 °F. Limit 41 °F.'],
                ['cold_hold', 'met', 'At 41 °F or below at every reading (1). Last reading 39 °F at 06:20.'],
            ],
        ];
        yield ['beef cut', '30', ['0 received temp=44'], [['receiving', 'broken', 'Received at 44 °F, above 41 °F.']]];
        yield [
            'beef cut',
            '30',
            ['0 received'],
            [
                [
                    'receiving',
                    'not_shown',
                    'No temperature was recorded at the door.',
                ],
            ],
        ];
        yield [
            'lamb roast 3kg',
            '700',
            ['0 prep', '90 cook oven=convection set=325', '200 120', '300 146', '304 146', '310 rest', '330 141'],
            [
                ['cook', 'met', 'Reached 145 °F held 4 min: read 146 °F at 11:04.'],
                [
                    'rest',
                    'not_shown',
                    'No reading for 6 h 10 min, '
                    .'from 11:30 to 17:40. It may have dropped below 135 °F.',
                ],
                [
                    'house.prep_out',
                    'caution',
                    'Out of the cold for 1 h 30 min before cooking. House rule: 1 h.',
                ],
            ],
        ];
        yield [
            'lamb roast 3kg 2pieces',
            '302',
            ['0 cook oven=convection set=250', '200 120 p1', '300 146 p1'],
            [
                [
                    'cook',
                    'running',
                    'At 145 °F since 11:00. Check again at 11:03 or later: still at 145 °F documents 4 min.',
                ],
                [
                    'cook',
                    'running',
                    '1 of 2 pieces checked so far. Not checked: piece 2. Each piece needs 145 °F held 4 min, '
                    .'or reaches 158 °F.',
                ],
            ],
        ];
        yield [
            'pork roast',
            '400',
            ['-5 inject', '0 cook', '200 141', '300 143', '310 rest'],
            [
                [
                    'cook',
                    'running',
                    'Last reading on the heat: 143 °F at 11:00. Needs 145 °F held 3 min, or reaches 158 °F '
                    .'(non-intact or ground). To prove carry-over, read 145 °F or above now, and again 3 min later.',
                ],
                [
                    'rest',
                    'running',
                    'Resting, with no reading yet. Check by 13:10: a longer gap could hide a drop below 135 °F.',
                ],
                [
                    'house.raw_leftover',
                    'caution',
                    'Injected at 05:55. The leftover brine touched raw meat. Discard it and tap "Record: '
                        .'leftover discarded".',
                ],
            ],
        ];
        yield [
            'beef cut',
            '340',
            ['0 cook', '100 170', '110 hot_hold', '120 150', '330 133'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                ['hot_hold', 'broken', 'Read 133 °F at 11:30, below 135 °F. It dropped some time after 08:00.'],
                [
                    'house.hot_hold_check',
                    'caution',
                    'No reading for 3 h 30 min, from 08:00 to 11:30. House rule: check every 2 h.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '600',
            ['0 cook', '100 170', '110 hot_hold', '120 150'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                [
                    'hot_hold',
                    'not_shown',
                    'No reading for 8 h, from 08:00 to 16:00. After 4 h it is not documented that it stayed at 135 °F.',
                ],
                [
                    'house.hot_hold_check',
                    'caution',
                    'No reading for 8 h, from 08:00 to 16:00. House rule: check every 2 h.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '400',
            ['0 cook', '100 170', '110 cool', '115 136', '120 130', '200 80'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                [
                    'cool.stage1',
                    'not_shown',
                    '70 °F was due by 09:55 and is not documented. Last reading 80 °F at 09:20.',
                ],
                [
                    'cool.total',
                    'running',
                    'Must reach 41 °F by 13:55, counted from 07:55. Last reading 80 °F at 09:20.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '400',
            ['0 cook', '100 170', '110 cool', '115 136', '120 130', '200 69', '390 40'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                [
                    'cool.stage1',
                    'met',
                    'Reached 70 °F in time: 1 h 25 min at most since it was last read hot (07:55). Allowed: 2 h.',
                ],
                [
                    'cool.total',
                    'met',
                    'Reached 41 °F in time: 4 h 35 min at most since it was last read hot (07:55). Allowed: 6 h.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '600',
            ['0 cook', '100 170', '110 cool', '115 136', '120 130', '255 71', '300 60'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                ['cool.stage1', 'broken', 'Too slow to 70 °F: at least 2 h 15 min. Allowed: 2 h.'],
                [
                    'cool.total',
                    'not_shown',
                    '41 °F was due by 13:55 and is not documented. Last reading 60 °F at 11:00.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '300',
            ['0 cook', '100 170', '110 rest'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at 07:40.'],
                [
                    'rest',
                    'not_shown',
                    'No reading for 3 h 10 min, '
                    .'from 07:50 to 11:00. It may have dropped below 135 °F.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '500',
            ['0 reheat for=hot_hold', '60 120', '130 166'],
            [
                [
                    'reheat',
                    'not_shown',
                    'Took between 0 s and 2 h 10 min to reach 165 °F. Allowed: 2 h. The readings do not document '
                    .'that it was in time.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '200',
            ['0 reheat for=hot_hold', '60 120'],
            [['reheat', 'not_shown', '165 °F was due by 08:00 and is not documented. Last reading 120 °F at 07:00.']],
        ];
        yield [
            'beef cut',
            '60',
            ['-10 140', '0 time_control plan=hot_4h'],
            [
                [
                    'time_control',
                    'running',
                    'Out since 06:00. Serve or discard it by 10:00. It never goes back.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '300',
            ['-10 130', '0 time_control plan=hot_4h', '50 hot_hold'],
            [
                [
                    'hot_hold',
                    'not_shown',
                    'No reading in this hold (4 h 10 min). It is not documented that it stayed at 135 °F.',
                ],
                ['time_control', 'broken', 'Started at 130 °F (05:50), below 135 °F.'],
                [
                    'time_control',
                    'broken',
                    'Went on to Hot holding. Food under time control must be served or discarded.',
                ],
                [
                    'house.hot_hold_check',
                    'caution',
                    'No reading for 4 h 10 min, from 06:50 to 11:00. House rule: check every 2 h.',
                ],
            ],
        ];
        yield [
            'beef cut',
            '5000',
            ['0 cook', '100 170', '110 cool', '120 130', '200 69', '300 40', '310 cold_hold', '320 39'],
            [
                ['cook', 'met', 'Reached 145 °F held 15 s: read 170 °F at Sat 2 May 07:40.'],
                [
                    'cool.stage1',
                    'met',
                    'Reached 70 °F in time: 1 h 40 min at most since it was last read hot (Sat 2 May 07:40). '
                    .'Allowed: 2 h.',
                ],
                [
                    'cool.total',
                    'met',
                    'Reached 41 °F in time: 3 h 20 min at most since it was last read hot (Sat 2 May 07:40). '
                    .'Allowed: 6 h.',
                ],
                ['date_mark', 'running', 'Use by Fri 8 May 2026. Day 1 is Sat 2 May 2026, without frozen days: 0.'],
            ],
        ];
    }
}
