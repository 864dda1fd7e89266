<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Work;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Yaml\Yaml;
use Verjuicer\App\Book\Exchange\RecordImport;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Core\Story;

/**
 * Every sentence that tells a cook to do something, in a situation in which it is said, and what is never said there:
 * by the page of a batch and by what is due on the board.
 */
final class SituationsTest extends KitchenTestCase
{
    private const NEVER_PAST = ['Split it', 'ice bath now', 'Only a reheat before it ends', 'Read it by'];

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
        yield 'on the heat' => [Story::of('-60 cook', '-30 120 T1'), 'Off the heat'];
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
        $options = Yaml::parseFile(\dirname(__DIR__, 3).'/translations/findings.en.yaml')['option'] ?? [];
        $messages = Yaml::parseFile(\dirname(__DIR__, 3).'/translations/messages.en.yaml');
        self::assertIsArray($options);
        self::assertIsArray($messages);
        $advice = ['option' => $options, 'due' => $messages['due'] ?? []];
        $fall = array_flip(['act', 'act_pans', 'hot_read', 'read_by', 'now']);
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
        yield 'on the heat' => [$cook, '0', ['Keep it on the heat and read it again.'], ['Throw it away', 'Reheat']];
        yield 'pieces that were not read' => [
            Story::of('-60 cook', '-30 160 p1 T1')->about('beef cut 2pieces'),
            '0',
            ['Read the pieces that were not read.'],
            ['Throw it away'],
        ];
        yield 'the time at temperature is full' => [
            Story::of('-90 cook oven=convection set=300', '-10 146 T1', '-9 146 T1')->about('beef roast 3kg'),
            '-5',
            ['read it: the time at temperature is full'],
            ['Throw it away'],
        ];
        yield 'off the heat, and it may carry over' => [
            Story::of('-120 cook', '-20 140 T1', '-10 rest')->about('beef roast 3kg'),
            '-8',
            ['Read it now, and once more when the time is up.'],
            ['Keep it on the heat'],
        ];
        yield 'it came off too cool, and was held' => [
            Story::of('-90 cook', '-30 130 T1', '-20 hot_hold', '-19 131 T1'),
            '0',
            [
                'Not served yet? Back on the heat until the record shows the full requirement.',
                'not cooked through by the record: settle it',
            ],
            ['Keep it on the heat'],
        ];
        yield 'undercooked by intent' => [
            Story::of('-90 cook', '-30 120 T1', '-20 rest', '-19 121 T1')->about('beef cut advisory'),
            '0',
            ['Served under the consumer advisory, undercooked by intent.'],
            ['Back on the heat', 'Keep it on the heat'],
        ];
        yield 'it came in too warm' => [
            Story::of('-30 received temp=50'),
            '0',
            ['Refuse it.', 'it came in too warm: settle it'],
            ['Keep it on the heat'],
        ];
        yield 'it came in unread' => [
            Story::of('-30 received'),
            '0',
            ['Read it now and note it; the arrival itself stays not shown.'],
            ['Throw it away'],
        ];
        yield 'held hot, and fallen' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-200 150 T1', '-10 128 T1'),
            '0',
            ['Throw it away.', 'fell under its hot limit: settle it'],
            ['Keep it on the heat', 'Reheat to'],
        ];
        yield 'held hot, and fallen a moment ago' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-60 150 T1', '-10 128 T1'),
            '0',
            ['Reheat to 165 °F within 2 h, then hold it hot again.', 'fell under its hot limit: settle it'],
            ['Keep it on the heat'],
        ];
        yield 'held hot, to be read' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold', '-200 150 T1'),
            '0',
            [
                'last moment to read it: past this nothing shows it stayed hot',
                'take its temperature (hot hold)',
            ],
            ['Throw it away.'],
        ];
        yield 'cooling too slowly, the gate ahead' => [
            Story::of('-400 cook', '-200 180 T1', '-102 136 T1', '-100 cool', '-99 134 T1', '-60 128 T1', '-20 122 T1'),
            '0',
            [
                'Cool it faster: shallow pans, ice bath, blast chiller.',
                'Or reheat to 165 °F now and start the cooling again, once.',
                'Split it into shallow pans or use an ice bath now.',
                'Read it by',
                'so that the record can show it.',
                'must be at 70 °F',
                'at this rate past 70 °F too late',
                'Split it into shallow pans or use an ice bath now. '
                    .'Reheating to 165 °F and starting again, once, is possible until',
            ],
            ['That time is over', 'Throw it away.'],
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
            [
                'Use an ice bath or a blast chiller now. '
                    .'Reheating to 165 °F and starting again, once, is possible until',
            ],
            ['Split it into shallow pans'],
        ];
        yield 'cooling, both gates past' => [
            Story::of('-800 cook', '-600 180 T1', '-580 cool', '-579 134 T1', '-500 128 T1'),
            '0',
            [
                'That time is over.',
                'was due at 70 °F',
                'was due at 41 °F',
                'No reading can show it any more. '
                    .'The person in charge decides and writes down why; in doubt, throw it away.',
                'not shown: cooling, first gate. Say what was done',
            ],
            self::NEVER_PAST,
        ];
        yield 'past a gate by its readings' => [
            Story::of('-800 cook', '-600 180 T1', '-580 cool', '-579 134 T1', '-400 90 T1', '-100 72 T1'),
            '0',
            ['past 70 °F too late: settle it', 'Throw it away.'],
            self::NEVER_PAST,
        ];
        yield 'resting unread' => [
            Story::of('-400 cook', '-250 180 T1', '-60 rest'),
            '0',
            [
                'Read it; hold it hot or start cooling before it falls.',
                'read it: past this nothing shows it stayed over 135 °F',
            ],
            ['Keep it on the heat', 'Throw it away.'],
        ];
        yield 'resting, unread for too long' => [
            Story::of('-700 cook', '-550 180 T1', '-500 rest'),
            '0',
            ['Read it now. If it is under the hot limit, the cooling clock has been running.'],
            ['Keep it on the heat', 'Read it; hold it hot'],
        ];
        yield 'reheating' => [
            Story::of(...self::COOLED, ...['-60 reheat for=hot_hold', '-30 90 T1']),
            '0',
            ['Turn up the heat; do not wait for the steam table.', 'must be at 165 °F'],
            ['Throw it away.', 'Keep it on the heat'],
        ];
        yield 'reheating, its time over' => [
            Story::of(...self::COOLED, ...['-300 reheat for=hot_hold', '-30 120 T1']),
            '0',
            ['was due at 165 °F', 'not shown: reheated. Say what was done'],
            ['must be at 165 °F', 'Turn up the heat'],
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
            ['reheated too slowly: throw it away', 'Throw it away.'],
            ['Turn up the heat'],
        ];
        yield 'out by the clock' => [
            Story::of('-400 cook', '-250 180 T1', '-61 150 T1', '-60 time_control plan=hot_4h'),
            '0',
            ['serve or throw away what is left'],
            ['Reheat to', 'Read it now', 'Throw it away.'],
        ];
        yield 'out by the clock, its time over' => [
            Story::of('-600 cook', '-450 180 T1', '-401 150 T1', '-400 time_control plan=hot_4h'),
            '0',
            ['throw it away: out too long or started wrong', 'its time without heat is over: throw away what is left'],
            ['Reheat to', 'Read it now'],
        ];
        yield 'out by the clock, its start unread' => [
            Story::of('-400 cook', '-250 180 T1', '-60 time_control plan=hot_4h'),
            '-58',
            ['take its temperature'],
            ['Reheat to', 'Throw it away.'],
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
            ['past its date: throw it away'],
            ['Keep it on the heat'],
        ];
        yield 'kept, its date ahead' => [
            Story::of('-9000 cook', '-8900 180 T1', '-8890 cool', '-8850 68 T1', '-8600 40 T1', '-8590 cold_hold',
                '-10 39 T1'),
            '0',
            ['use by'],
            ['past its date', 'Throw it away.'],
        ];
        yield 'too warm in the cold' => [
            Story::of('-3000 cook', '-2900 180 T1', '-2890 cool', '-2850 68 T1', '-2600 40 T1', '-2590 cold_hold',
                '-500 48 T1', '-100 49 T1'),
            '0',
            ['too warm in the cold: settle it'],
            ['Keep it on the heat'],
        ];
        yield 'thawing in water' => [
            Story::of('-300 received frozen=true', '-60 thaw method=running_water', '-30 44 T1'),
            '0',
            ['out of the water and into the cold'],
            ['Throw it away.'],
        ];
        yield 'thawed too warm' => [
            Story::of('-900 received frozen=true', '-600 thaw method=running_water', '-300 50 T1', '-60 52 T1'),
            '0',
            ['thawed too warm: throw it away', 'its time in the water is over'],
            ['out of the water and into the cold'],
        ];
        yield 'a thermometer that failed' => [
            Story::of('-60 cook', '-30 150 T1')->withThermometer('T1', '-90 32.0 32.2', '-10 32.0 37.0'),
            '0',
            [
                'Adjust or replace the thermometer.',
                'Read again, with another thermometer, all food it cleared.',
            ],
            ['Throw it away.'],
        ];
        yield 'a thermometer that was never checked' => [
            Story::of('-60 cook', '-30 150 T9'),
            '0',
            ['Check the thermometer in ice water and write it down.'],
            ['Throw it away.'],
        ];
        yield 'readings that cannot both be true' => [
            Story::of('-60 cook', '-30 150 T1', '-29 90 T1'),
            '0',
            ['Correct the reading that is wrong, with a reason.'],
            ['Throw it away.'],
        ];
        yield 'out of the cold for prep' => [
            Story::of('-400 received temp=38', '-300 prep', '-299 39 T1'),
            '0',
            ['Back to the cold, or onto the heat.'],
            ['Keep it on the heat'],
        ];
        yield 'out of the cold for a while yet' => [
            Story::of('-100 received temp=38', '-20 prep', '-19 39 T1'),
            '0',
            ['onto the heat or back to the cold, house limit'],
            ['Throw it away.'],
        ];
        yield 'coming up from the cold' => [
            Story::of('-60 cook', '-59 39 T1', '-30 70 T1')->about('beef roast 3kg'),
            '0',
            ['135 °F by now? Come-up, house limit'],
            ['Throw it away.'],
        ];
        yield 'resting, and falling' => [
            Story::of('-400 cook', '-70 195 T1', '-60 rest holding=counter', '-55 190 T1', '-30 172 T1', '-5 156 T1'),
            '0',
            ['read it: it may fall under 135 °F from then on', 'a later reading could miss the fall. '
                    .'From then on the cooling clock runs, whatever it is called.'],
            ['Keep it on the heat', 'Throw it away.'],
        ];
        yield 'cooling, perhaps in time' => [
            Story::of('-400 cook', '-200 180 T1', '-62 136 T1', '-60 cool', '-40 117 T1', '-20 104 T1', '-5 97 T1'),
            '0',
            ['may pass 70 °F too late'],
            ['Throw it away.'],
        ];
        yield 'wanted sooner than it will be done' => [
            Story::of('-300 cook oven=still set=250', '-299 note ready_by='.Story::at('30')->rfc3339(),
                '-298 note step=target temp=195', '-240 70 T1',
                '-180 95 T1', '-120 115 T1', '-60 132 T1', '-5 145 T1'),
            '0',
            ['will be late for service'],
            ['Throw it away.'],
        ];
        yield 'wanted about when it will be done' => [
            Story::of('-300 cook oven=still set=250', '-299 note ready_by='.Story::at('270')->rfc3339(),
                '-298 note step=target temp=195', '-240 70 T1',
                '-180 95 T1', '-120 115 T1', '-60 132 T1', '-5 145 T1'),
            '0',
            ['may be late for service'],
            ['Throw it away.'],
        ];
        yield 'brine that is left over' => [
            Story::of('-60 prep', '-50 inject'),
            '0',
            ['Throw the left-over away, then tap "Left-over thrown away".'],
            [],
        ];
        yield 'held in a cabinet with rounds of its own' => [
            Story::of('-400 cook', '-250 180 T1', '-240 hot_hold place=cabinet', '-40 150 T1'),
            '0',
            ['read it: the round of cabinet'],
            ['Throw it away.'],
        ];
        yield 'on a pit that lost its heat' => [
            Story::of('-100 cook pit=p1 set=250', '-60 pit_reading temp=200', '-20 120 T1'),
            '0',
            ['Pit far under its set point: check fire and fuel'],
            ['Throw it away.'],
        ];
        yield 'packed without air' => [
            Story::of(...self::COOLED, ...['-400 pack method=vacuum']),
            '0',
            ['out of the vacuum pack, or thrown away'],
            ['Throw it away.'],
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
            ['too warm in the cold: settle it'],
        ];
        yield 'broken in the cold, and its date still ahead' => [
            Story::of('-3000 cook', '-2900 180 T1', '-2890 cool', '-2850 68 T1', '-2600 40 T1', '-2590 cold_hold',
                '-500 48 T1', '-100 49 T1'),
            '0',
            ['too warm in the cold: settle it'],
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
