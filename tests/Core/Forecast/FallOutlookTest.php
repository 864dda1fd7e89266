<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingLimitOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Tests\Core\Story;

/** The warning comes before the limit: what a rest and a cooling are likely to do, against the time they have. */
final class FallOutlookTest extends TestCase
{
    private const REST = ['0 cook', '100 200', '110 rest method=towels', '140 185', '170 172', '200 161'];
    private const SLOW = ['0 cook', '100 170', '110 cool method=walk-in', '112 136', '140 128', '170 120', '190 115'];
    private const FAST = ['0 cook', '100 170', '110 cool method=ice', '112 136', '130 104', '150 80'];

    /** @param list<string> $lines */
    #[DataProvider('falls')]
    public function testWarnsBeforeTheLimit(?string $expected, array $lines, string $asOf): void
    {
        $outlook = FallOutlook::of(
            Story::of(...$lines)->about('lamb roast 2pieces')->withThermometer('T9', '500 32 40')->assess($asOf),
        );
        self::assertSame(
            $expected,
            $outlook === null
                ? null
                : implode(' ', [
                    $outlook->track,
                    $outlook->holding->value,
                    $outlook->hot === null ? '-' : 'hot',
                    ...array_map(
                        static fn (CoolingLimitOutlook $gate): string => $gate->rule.':'.($gate->late->value ?? 'fine'),
                        $outlook->gates,
                    ),
                ]),
        );
        if ($outlook?->hot !== null) {
            self::assertSame($outlook->hot->earliest->epoch, $outlook->readBy?->epoch, 'read before it can be under');
        }
    }

    /** @return iterable<string, array{0: string|null, 1: list<string>, 2: string}> */
    public static function falls(): iterable
    {
        yield 'a rest that falls' => ['1/core towels hot', self::REST, '205'];
        yield 'the coolest piece decides when it may be under the hot limit' => [
            '2/core towels hot',
            [
                '0 cook',
                '100 200',
                '101 190 p2',
                '110 rest method=towels',
                '140 185',
                '141 165 p2',
                '170 172',
                '171 151 p2',
            ],
            '175',
        ];
        yield 'once one piece is under it nothing of the hot limit is forecast' => [
            '1/core towels - cool.stage1:sure cool.total:sure',
            [
                '0 cook',
                '100 160',
                '101 190 p2',
                '110 rest method=towels',
                '140 140',
                '141 185 p2',
                '170 134',
                '171 172 p2',
            ],
            '175',
        ];
        yield 'out by the clock nobody is told to reheat' => [
            null,
            ['0 cook', '100 200', '110 time_control plan=hot_4h', '112 180', '140 160', '170 150'],
            '175',
        ];
        yield 'a carrier is no cabinet' => [
            null,
            ['0 cook', '100 200', '110 hot_hold place=carrier', '112 180', '140 165', '170 150'],
            '175',
        ];
        yield 'nor is a chafing dish' => [
            null,
            ['0 cook', '100 200', '110 hot_hold place=chafing+dish', '112 180', '140 165', '170 150'],
            '175',
        ];
        yield 'where it is may be chosen' => [
            '1/core ice_bath - cool.stage1:fine cool.total:fine',
            [
                ...\array_slice(self::FAST, 0, 2),
                '110 cool holding=ice_bath method=the+blue+tub',
                ...\array_slice(self::FAST, 3),
            ],
            '151',
        ];
        yield 'a word within another means nothing' => [
            '1/core walk_in - cool.stage1:sure cool.total:sure',
            ['0 cook', '100 170', '110 cool method=sliced', '112 136', '140 128', '170 120', '190 115'],
            '195',
        ];
        yield 'a cooling that will miss' => ['1/core walk_in - cool.stage1:sure cool.total:sure', self::SLOW, '195'];
        yield 'one that will not' => ['1/core ice_bath - cool.stage1:fine cool.total:fine', self::FAST, '151'];
        yield 'by the slowest of its tracks' => [
            '2/core ice_bath - cool.stage1:fine cool.total:fine',
            [
                '0 cook',
                '100 170',
                '101 170 p2',
                '110 cool method=ice',
                '112 130',
                '113 136 p2',
                '130 100',
                '131 108 p2',
                '150 72',
                '151 84 p2',
            ],
            '152',
        ];
        yield 'a track nobody read since is not believed' => [
            '1/core ice_bath - cool.stage1:fine cool.total:fine',
            ['0 cook', '99 180 p2', '100 170', '110 cool method=ice', '112 136', '130 104', '150 80'],
            '151',
        ];
        yield 'from method and size before anything was read' => [
            '1/core box hot',
            ['0 cook', '100 200', '110 rest method=box'],
            '112',
        ];
        yield 'in the cold and cold' => [
            null,
            ['0 cook', '100 170', '110 cool method=ice', '112 136', '130 60', '200 40', '210 cold_hold'],
            '220',
        ];
        yield 'on the heat' => [null, ['0 cook', '100 170', '110 150', '130 140'], '131'];
        yield 'suspect readings forecast nothing' => [
            null,
            ['0 cook', '110 rest method=towels', '140 185 T9', '170 172 T9'],
            '171',
        ];
    }

    public function testTheFanStartsAtTheLastReadingAndIsDrawn(): void
    {
        $assessment = Story::of(...self::SLOW)->about('lamb roast')->assess('195');
        $fall = FallOutlook::of($assessment);
        self::assertNotNull($fall);
        $fan = $fall->fan(Story::at('400'), TemperatureUnit::Fahrenheit);
        self::assertEqualsWithDelta(1120, $fan[0][1]->tenths, 35, 'five minutes after it was read at 115');
        self::assertEqualsWithDelta(1140, $fan[0][2]->tenths, 38);
        foreach ($fan as [, $cold, $warm]) {
            self::assertGreaterThanOrEqual($cold->tenths, $warm->tenths);
        }
        self::assertSame(Holding::WalkIn, $fall->holding);
    }

    /** What is kept between two requests says the same when it is read again, to the last digit. */
    public function testAForecastThatIsKeptIsTheSameWhenItIsReadAgain(): void
    {
        foreach ([self::REST, self::SLOW] as $lines) {
            $assessment = Story::of(...$lines)->about('lamb roast 2pieces 2.2kg')->assess('205');
            $made = FallOutlook::of($assessment);
            self::assertNotNull($made);
            $kept = unserialize(serialize($made));
            self::assertInstanceOf(FallOutlook::class, $kept);
            self::assertSame(serialize($made), serialize($kept));
            $until = Story::at('500');
            self::assertSame(
                json_encode($made->fan($until, TemperatureUnit::Fahrenheit)),
                json_encode($kept->fan($until, TemperatureUnit::Fahrenheit)),
            );
            self::assertEquals($made->remedies($assessment), $kept->remedies($assessment));
            self::assertLessThan(600_000, \strlen(serialize($made)), 'a page reads it each time');
        }
    }

    /**
     * Nothing shows it under the hot limit since it was read on the heat: its chance is of the time that the next
     * reading begins, not of one that is over while it is still hot.
     *
     * @param list<string> $lines
     */
    #[DataProvider('unread')]
    public function testWhatWasNotReadSinceItWasHotMayBeginItsTimeAnew(?string $hotAt, string $late, array $lines): void
    {
        $outlook = FallOutlook::of(Story::of(...$lines)->about('lamb roast 1.2kg')->assess('260'));
        $gate = $outlook?->gates[0] ?? self::fail('It has no gate.');
        self::assertSame('cool.stage1', $gate->rule);
        self::assertEquals($hotAt === null ? null : Story::at($hotAt), $gate->hotAt);
        self::assertSame($late, $gate->late->value ?? 'fine');
        self::assertSame($hotAt !== null && $hotAt < '200', $gate->isOfNextReading(Story::at('260')));
    }

    /** @return iterable<string, array{string|null, string, list<string>}> */
    public static function unread(): iterable
    {
        $ice = '250 cool holding=ice_bath depth_mm=30 around=33';
        yield 'a gap on the heat, then thin in ice' => ['160', 'fine', ['0 cook', '160 185', $ice]];
        yield 'its time is over by the record' => ['100', 'sure', ['0 cook', '100 185', $ice]];
        yield 'the same, shown hot in the ice' => ['255', 'fine', ['0 cook', '160 185', $ice, '255 150']];
        yield 'the same, shown under it: its time is over' => [null, 'sure', ['0 cook', '100 185', $ice, '255 130']];
        yield 'whole in a walk-in it may be late all the same' => [
            '160',
            'maybe',
            ['0 cook', '160 185', '250 cool holding=walk_in around=38'],
        ];
    }

    /**
     * Back on the heat its time begins anew: only while the first gate may still be passed, and the hotter the pit is
     * the surer.
     *
     * @param list<string> $lines
     */
    #[DataProvider('heated')]
    public function testBackOnTheHeatIsOfferedWhileItHelps(bool $isOffered, array $lines, string $asOf): void
    {
        [$cool, $hot] = array_map(static function (string $set) use ($lines, $asOf): array {
            $assessment = Story::of("0 cook oven=convection set=$set", ...$lines)->about('lamb roast 1.2kg')
                ->assess($asOf);
            $late = [];
            foreach (FallOutlook::of($assessment)?->remedies($assessment) ?? [] as $remedy) {
                $late[$remedy->kind->value] = $remedy->late;
            }

            return $late;
        }, ['225', '425']);
        self::assertSame([$isOffered, $isOffered], [isset($cool['back_on_heat']), isset($hot['back_on_heat'])]);
        if ($isOffered) {
            self::assertLessThan($cool['back_on_heat'] ?? 0.0, $hot['back_on_heat'] ?? 1.0);
            self::assertGreaterThanOrEqual(0.0, $hot['back_on_heat'] ?? -1.0);
            self::assertLessThanOrEqual(1.0, $cool['back_on_heat'] ?? 2.0);
        }
        self::assertNotNull($hot['blast_chiller'] ?? null);
        self::assertSame($cool['blast_chiller'] ?? null, $hot['blast_chiller'] ?? null, 'it hears nothing of the pit');
    }

    /** @return iterable<string, array{bool, list<string>, string}> */
    public static function heated(): iterable
    {
        $slow = ['100 170', '110 cool holding=walk_in', '112 136', '120 134', '140 128', '170 120', '200 112'];
        yield 'slow, and its first gate ahead' => [true, $slow, '205'];
        yield 'its first gate is passed' => [false, [...$slow, '210 69', '215 68'], '220'];
        yield 'it was reheated before' => [
            false,
            ['100 170', '101 cool holding=walk_in', '110 130', '120 reheat for=hot_hold', '160 170', ...array_map(
                static fn (string $line): string => (70 + (int) $line).strstr($line, ' '),
                \array_slice($slow, 1),
            )],
            '275',
        ];
        yield 'the time for its first gate is over' => [false, $slow, '245'];
    }
}
