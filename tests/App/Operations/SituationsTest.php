<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Yaml\Yaml;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Core\Story;

/**
 * Every sentence that tells a cook to do something, in a situation in which it is said, and what is never said there:
 * by the page of a batch and by what is due on the board.
 */
final class SituationsTest extends KitchenTestCase
{
    private const NEVER_PAST = [
        'Do this now',
        'ice bath now',
        'Only reheating in time, once',
        'Check the temperature by',
    ];

    /** Cooked, cooled in time, and in the cold since. */
    private const COOLED = [
        '-900 cook',
        '-700 180 T1',
        '-690 cool',
        '-680 120 T1',
        '-640 68 T1',
        '-500 40 T1',
        '-499 cold_hold',
    ];

    /**
     * @param list<string> $says
     * @param list<string> $never
     */
    #[DataProvider('situations')]
    public function testACookIsToldWhatCanBeDone(Story $story, string $asOf, array $says, array $never): void
    {
        $told = $this->told($story, $asOf);
        foreach ($says as $one) {
            self::assertStringContainsString($one, $told);
        }
        foreach ($never as $one) {
            self::assertStringNotContainsString($one, $told);
        }
    }

    /** @param string|null $likely what the big key says first; null where there is none */
    #[DataProvider('likelySteps')]
    public function testTheBigKeyIsWhatMayBeDoneNext(Story $story, ?string $likely): void
    {
        $this->told($story, '0');
        $id = $this->words("SELECT id::text FROM batch WHERE code = 'test'");
        $key = $this->client->request('GET', '/batches/'.$id)->filter('.next-keys .step summary span');
        self::assertSame($likely, $key->count() === 0 ? null : $key->first()->text());
    }

    /** @return iterable<string, array{Story, string|null}> */
    public static function likelySteps(): iterable
    {
        yield 'on the heat, short of the code' => [Story::of('-60 cook', '-30 120 T1'), null];
        yield 'on the heat, and cooked as the code requires' => [Story::of('-60 cook', '-30 180 T1'), 'Off the heat'];
        yield 'cooling, and still warm' => [
            Story::of('-200 cook', '-110 180 T1', '-102 136 T1', '-100 cool', '-20 90 T1'),
            null,
        ];
        yield 'cooled' => [
            Story::of('-400 cook', '-310 180 T1', '-302 136 T1', '-300 cool', '-220 68 T1', '-20 40 T1'),
            'Into the cold',
        ];
        yield 'resting, and past both its gates' => [
            Story::of('-900 cook', '-700 195 T1', '-690 rest', '-20 90 T1'),
            null,
        ];
        yield 'came in unread, and nobody said what was done' => [Story::of('-30 received', '-20 prep'), null];
    }

    public function testEverySentenceOfAdviceHasItsSituation(): void
    {
        $told = '';
        foreach (self::situations() as [, , $says]) {
            $told .= implode("\n", $says)."\n";
        }
        $options = Yaml::parseFile(\dirname(__DIR__, 3).'/translations/findings+intl-icu.en.yaml')['option'] ?? [];
        $messages = Yaml::parseFile(\dirname(__DIR__, 3).'/translations/messages+intl-icu.en.yaml');
        self::assertIsArray($options);
        self::assertIsArray($messages);
        $advice = ['option' => $options, 'due' => $messages['due'] ?? []];
        $fall = array_flip(['best', 'none_helps', 'reheat_by', 'hot_read', 'read_by', 'now']);
        $advice['fall'] = array_intersect_key($messages['fall'], $fall);
        unset($advice['due']['claim'], $advice['due']['claimed'], $advice['due']['taken'], $advice['due']['more']);
        $missing = [];
        array_walk_recursive($advice, static function (mixed $sentence, string|int $key) use ($told, &$missing): void {
            self::assertIsString($sentence);
            // What stands between its figures.
            $fixed = '';
            foreach (explode('|', (string) preg_replace('/\{\w+\}/', '|', $sentence)) as $part) {
                $part = trim($part, ' ,;:.');
                $fixed = \strlen($part) > \strlen($fixed) ? $part : $fixed;
            }
            if ($fixed !== '' && !str_contains($told, $fixed)) {
                $missing[] = "$key: $sentence";
            }
        });
        self::assertSame([], $missing);
    }

    /** @return iterable<string, array{Story, string, list<string>, list<string>}> */
    public static function situations(): iterable
    {
        $cook = Story::of('-60 cook', '-30 120 T1');
        yield 'on the heat' => [$cook, '0', ['Keep it on the heat and check it again.'], ['Discard it', 'Reheat']];
        yield 'Check the pieces without a reading' => [
            Story::of('-60 cook', '-30 160 p1 T1')->about('beef cut 2pieces'),
            '0',
            ['Check the pieces without a reading.'],
            ['Discard it.'],
        ];
        yield 'check the temperature: hold time complete' => [
            Story::of('-90 cook oven=convection set=300', '-10 146 T1', '-9 146 T1')->about('beef roast 3kg'),
            '-5',
            ['check the temperature: hold time complete'],
            ['Discard it.'],
        ];
        yield 'off the heat, and it may carry over' => [
            Story::of('-120 cook', '-20 140 T1', '-10 rest')->about('beef roast 3kg'),
            '-8',
            ['Check it now, and again when the time is up.'],
            ['Keep it on the heat'],
        ];
        yield 'it came off too cool, and was held' => [
            Story::of('-90 cook', '-30 130 T1', '-20 hot_hold', '-19 131 T1'),
            '0',
            [
                'Put it back on the heat until the record documents the full requirement, if it is not served yet.',
                'not cooked through: record corrective action',
            ],
            ['Keep it on the heat'],
        ];
        yield 'undercooked on purpose' => [
            Story::of('-90 cook', '-30 120 T1', '-20 rest', '-19 121 T1')->about('beef cut advisory'),
            '0',
            ['Serve it under the consumer advisory, undercooked on purpose.'],
            ['Put it back on the heat until the record documents the full requirement', 'Keep it on the heat'],
        ];
        yield 'received too warm: record corrective action' => [
            Story::of('-30 received temp=50'),
            '0',
            ['Refuse it.', 'received too warm: record corrective action'],
            ['Keep it on the heat'],
        ];
        yield 'it came in unread' => [
            Story::of('-30 received'),
            '0',
            ['Check it now and record it. The arrival stays not documented.'],
            ['Discard it.'],
        ];
        yield 'held hot, and fallen' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-200 150 T1', '-10 128 T1'),
            '0',
            ['Discard it.', 'fell below the hot-holding limit: record corrective action'],
            ['Keep it on the heat', 'then hot-hold it again'],
        ];
        yield 'held hot, and fallen a moment ago' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-60 150 T1', '-10 128 T1'),
            '0',
            [
                'Reheat it to 165 °F within 2 h, then hot-hold it again.',
                'fell below the hot-holding limit: record corrective action',
            ],
            ['Keep it on the heat'],
        ];
        yield 'held hot, to be read' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-200 150 T1'),
            '0',
            [
                'last chance to check this hold',
                'check the temperature (hot holding)',
            ],
            ['Discard it.'],
        ];
        yield 'held hot, and unread for too long' => [
            Story::of('-700 cook', '-550 180 T1', '-540 hot_hold', '-500 150 T1'),
            '0',
            ['not documented that it stayed hot'],
            ['last chance to check this hold', 'Keep it on the heat'],
        ];
        yield 'cooling too slowly, the gate ahead' => [
            Story::of('-400 cook', '-200 180 T1', '-102 136 T1', '-100 cool', '-99 134 T1', '-60 128 T1', '-20 122 T1'),
            '0',
            [
                'Check the temperature by',
                'must reach 70 °F',
                'will probably miss 70 °F: act now',
                'Every option will probably miss the limit. Ask the person in charge, or discard it.',
                'Options that will probably fail',
                'It must reach 165 °F by 06:18, once.',
            ],
            ['The time is up', 'Do this now'],
        ];
        yield 'cooling too slowly in shallow pans already' => [
            Story::of(
                '-400 cook',
                '-200 180 T1',
                '-102 136 T1',
                '-100 cool holding=shallow_pans',
                '-99 134 T1',
                '-60 128 T1',
                '-20 122 T1',
            ),
            '0',
            ['Every option will probably miss the limit.'],
            ['probably fail open pans'],
        ];
        yield 'cooling, in time' => [
            Story::of(
                '-400 cook',
                '-200 180 T1',
                '-32 136 T1',
                '-30 cool holding=blast_chiller',
                '-29 130 T1',
                '-8 84 T1',
            ),
            '0',
            [
                'Cool it faster: shallow pans, ice bath or blast chiller.',
                'Or reheat it to 165 °F now and start cooling again, once.',
            ],
            ['Do this now', 'Every option will probably miss'],
        ];
        yield 'cooling too slowly, with time left' => [
            Story::of('-400 cook', '-200 180 T1', '-32 136 T1', '-30 cool', '-29 134 T1', '-20 131 T1', '-5 127 T1'),
            '0',
            ['Do this now: ', 'Chance to miss the limit: ', 'Options that will probably fail'],
            ['Every option will probably miss', 'The time is up'],
        ];
        yield 'cooling, both gates past' => [
            Story::of('-800 cook', '-600 180 T1', '-580 cool', '-579 134 T1', '-500 128 T1'),
            '0',
            [
                'The time is up',
                'had to reach 70 °F',
                'had to reach 41 °F',
                'No reading can document it anymore. The person in charge decides and records why. When in '
                    .'doubt, discard it.',
                'First cooling limit not documented: record corrective action',
            ],
            self::NEVER_PAST,
        ];
        yield 'past a gate by its readings' => [
            Story::of('-800 cook', '-600 180 T1', '-580 cool', '-579 134 T1', '-400 90 T1', '-100 72 T1'),
            '0',
            ['missed 70 °F in cooling: record corrective action', 'Discard it.'],
            self::NEVER_PAST,
        ];
        yield 'resting unread' => [
            Story::of('-400 cook', '-250 180 T1', '-60 rest'),
            '0',
            [
                'Check the temperature. Hot-hold it or start cooling before it drops below the limit.',
                'check the temperature: last chance to document it stayed above 135 °F',
            ],
            ['Keep it on the heat', 'Discard it.'],
        ];
        yield 'resting, unread for too long' => [
            Story::of('-700 cook', '-550 180 T1', '-500 rest'),
            '0',
            ['Check the temperature now. Below the hot-holding limit, the cooling clock has already started.'],
            ['Keep it on the heat', 'Discard it now'],
        ];
        yield 'reheating' => [
            Story::of(...self::COOLED, ...['-60 reheat for=hot_hold', '-30 90 T1']),
            '0',
            ['Turn up the heat. Do not wait for the steam table.', 'must reach 165 °F'],
            ['Discard it.', 'Keep it on the heat'],
        ];
        yield 'reheating, its time over' => [
            Story::of(...self::COOLED, ...['-300 reheat for=hot_hold', '-30 120 T1']),
            '0',
            ['had to reach 165 °F', 'Reheating not documented: record corrective action'],
            ['must reach 165 °F', 'Turn up the heat'],
        ];
        yield 'reheated too slowly' => [
            Story::of(...[
                ...self::COOLED,
                '-300 reheat for=hot_hold',
                '-299 45 T1',
                '-100 120 T1',
                '-20 150 T1',
                '-19 164 T1',
                '-5 166 T1',
            ]),
            '0',
            ['reheated too slowly: discard it', 'Discard it.'],
            ['Turn up the heat'],
        ];
        yield 'out by the clock' => [
            Story::of('-400 cook', '-250 180 T1', '-61 150 T1', '-60 time_control plan=hot_4h'),
            '0',
            ['serve or discard what is left'],
            ['then hot-hold it again', 'Check the temperature now', 'Discard it.'],
        ];
        yield 'out by the clock, its time over' => [
            Story::of('-600 cook', '-450 180 T1', '-401 150 T1', '-400 time_control plan=hot_4h'),
            '0',
            ['out too long or started wrong: discard it', 'time is up: discard what is left'],
            ['then hot-hold it again', 'Check the temperature now'],
        ];
        yield 'out by the clock, its start unread' => [
            Story::of('-400 cook', '-250 180 T1', '-60 time_control plan=hot_4h'),
            '-58',
            ['check the temperature (time control)'],
            ['then hot-hold it again', 'Discard it.'],
        ];
        yield 'kept past its date' => [
            Story::of(
                '-14400 cook',
                '-14300 180 T1',
                '-14290 cool',
                '-14250 68 T1',
                '-14000 40 T1',
                '-13990 cold_hold',
            ),
            '0',
            ['past its use-by date: discard it'],
            ['Keep it on the heat'],
        ];
        yield 'kept, its date ahead' => [
            Story::of('-9000 cook', '-8900 180 T1', '-8890 cool', '-8850 68 T1', '-8600 40 T1', '-8590 cold_hold',
                '-10 39 T1'),
            '0',
            ['use by'],
            ['past its date', 'Discard it.'],
        ];
        yield 'too warm in cold holding: record corrective action' => [
            Story::of('-3000 cook', '-2900 180 T1', '-2890 cool', '-2850 68 T1', '-2600 40 T1', '-2590 cold_hold',
                '-500 48 T1', '-100 49 T1'),
            '0',
            ['too warm in cold holding: record corrective action'],
            ['Keep it on the heat'],
        ];
        yield 'thawing in water' => [
            Story::of('-300 received frozen=true', '-60 thaw method=running_water', '-30 44 T1'),
            '0',
            ['move from the water to the cold'],
            ['Discard it.'],
        ];
        yield 'thawed too warm' => [
            Story::of('-900 received frozen=true', '-600 thaw method=running_water', '-300 50 T1', '-60 52 T1'),
            '0',
            ['thawed too warm: discard it', 'time in the water is up'],
            ['move from the water to the cold'],
        ];
        yield 'a thermometer that failed' => [
            Story::of('-60 cook', '-30 150 T1')->withThermometer('T1', '-90 32.0 32.2', '-10 32.0 37.0'),
            '0',
            [
                'Adjust or replace the thermometer.',
                'Check all food it cleared again with another thermometer.',
            ],
            ['Discard it.'],
        ];
        yield 'a thermometer that was never checked' => [
            Story::of('-60 cook', '-30 150 T9'),
            '0',
            ['Check the thermometer in ice water and record it.'],
            ['Discard it.'],
        ];
        yield 'readings that cannot both be true' => [
            Story::of('-60 cook', '-30 150 T1', '-29 90 T1'),
            '0',
            ['Correct the reading that is wrong, with a reason.'],
            ['Discard it.'],
        ];
        yield 'Time out of the cold for prep' => [
            Story::of('-400 received temp=38', '-300 prep', '-299 39 T1'),
            '0',
            ['Put it back in the cold or on the heat.'],
            ['Keep it on the heat'],
        ];
        yield 'out of the cold for a while yet' => [
            Story::of('-100 received temp=38', '-20 prep', '-19 39 T1'),
            '0',
            ['put on the heat or back in the cold (house rule)'],
            ['Discard it.'],
        ];
        yield 'coming up from the cold' => [
            Story::of('-60 cook', '-59 39 T1', '-30 70 T1')->about('beef roast 3kg'),
            '0',
            ['should pass 135 °F (house rule)'],
            ['Discard it.'],
        ];
        yield 'resting, and falling' => [
            Story::of('-400 cook', '-70 195 T1', '-60 rest holding=counter', '-55 190 T1', '-30 172 T1', '-5 156 T1'),
            '0',
            [
                'check the temperature: it may drop below 135 °F after this',
                'Below this limit the cooling clock starts, even during a rest',
            ],
            ['Keep it on the heat', 'Discard it.'],
        ];
        yield 'cooling, perhaps in time' => [
            Story::of('-400 cook', '-200 180 T1', '-62 136 T1', '-60 cool', '-40 117 T1', '-20 104 T1', '-5 97 T1'),
            '0',
            ['may miss 70 °F'],
            ['Discard it.'],
        ];
        yield 'wanted sooner than it will be done' => [
            Story::of('-300 cook oven=still set=250', '-299 note ready_by='.Story::at('30')->rfc3339(),
                '-298 note step=target temp=195', '-240 70 T1',
                '-180 95 T1', '-120 115 T1', '-60 132 T1', '-5 145 T1'),
            '0',
            ['will be late for service'],
            ['Discard it.'],
        ];
        yield 'wanted about when it will be done' => [
            Story::of('-300 cook oven=still set=250', '-299 note ready_by='.Story::at('270')->rfc3339(),
                '-298 note step=target temp=195', '-240 70 T1',
                '-180 95 T1', '-120 115 T1', '-60 132 T1', '-5 145 T1'),
            '0',
            ['may be late for service'],
            ['Discard it.'],
        ];
        yield 'brine that is left over' => [
            Story::of('-60 prep', '-50 inject'),
            '0',
            ['Discard the leftover, then tap "Record: leftover discarded".'],
            [],
        ];
        yield 'held in a cabinet with rounds of its own' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold place=cabinet', '-40 150 T1'),
            '0',
            ['hot-holding check: cabinet'],
            ['Discard it.'],
        ];
        yield 'on a pit that lost its heat' => [
            Story::of('-100 cook pit=p1 set=250', '-60 pit_reading temp=200', '-20 120 T1'),
            '0',
            ['pit far below its set point: check fire and fuel'],
            ['Discard it.'],
        ];
        yield 'packed without air' => [
            Story::of(...self::COOLED, ...['-400 pack method=vacuum']),
            '0',
            ['take out of the vacuum pack or discard'],
            ['Discard it.'],
        ];
        yield 'broken in the cold, settled, and its date still ahead' => [
            Story::of(
                '-3000 cook',
                '-2900 180 T1',
                '-2890 cool',
                '-2850 68 T1',
                '-2600 40 T1',
                '-2590 cold_hold',
                '-100 48 T1',
                '-90 action finding=cold_hold text=into+the+other+walk-in',
                '-60 40 T1',
            ),
            '0',
            ['use by'],
            ['too warm in cold holding: record corrective action'],
        ];
        yield 'broken in the cold, and its date still ahead' => [
            Story::of('-3000 cook', '-2900 180 T1', '-2890 cool', '-2850 68 T1', '-2600 40 T1', '-2590 cold_hold',
                '-500 48 T1', '-100 49 T1'),
            '0',
            ['too warm in cold holding: record corrective action'],
            ['use by (', 'in 3 d'],
        ];
    }

    private function told(Story $story, string $asOf): string
    {
        self::mockTime(new \DateTimeImmutable(Story::at($asOf)->rfc3339()));
        $this->trustTheClock();
        $by = $this->logIn('dell');
        $report = $this->service(RecordImport::class)->import($story->json(), $by, false);
        self::assertTrue($report->isGood(), json_encode($report, \JSON_THROW_ON_ERROR));
        $this->logIn();
        $id = $this->words("SELECT id::text FROM batch WHERE code = 'test'");
        $page = $this->client->request('GET', '/batches/'.$id)->filter('main');
        $due = $this->client
            ->request('GET', '/')
            ->filter('[data-due] a[href*="'.$id.'"], [data-due] a[href^="/hot-round"]')
            ->each(static fn (Crawler $line): string => $line->text());

        return $page->text()."\n".implode("\n", $due);
    }
}
