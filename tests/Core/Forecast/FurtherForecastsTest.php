<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\CookRemedy;
use Verjuicer\Core\Forecast\CookRemedyKind;
use Verjuicer\Core\Forecast\CookRescue;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\NarrowingInput;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\Core\Story;

/** What a forecast says beside when: how it goes on once it is pulled, what would narrow it, what would bring it in. */
final class FurtherForecastsTest extends TestCase
{
    private const COOK = ['0 cook set=275', '60 70', '120 110', '180 140', '210 150'];

    public function testHeatGoesOnIntoAThickRoastAndMoreOfItFromAHotterPit(): void
    {
        $carried = [];
        foreach (['225', '325'] as $set) {
            $cook = ["0 cook set=$set", '60 62', '90 80', '120 100'];
            $over = self::outlook($cook, '125', '130')->carriedOver ?? null;
            self::assertNotNull($over);
            self::assertGreaterThanOrEqual(1300, $over->least->tenths);
            self::assertGreaterThanOrEqual($over->least->tenths, $over->likely->tenths);
            self::assertGreaterThanOrEqual($over->likely->tenths, $over->most->tenths);
            $carried[] = $over->likely->tenths;
        }
        self::assertGreaterThan($carried[0], $carried[1]);
    }

    public function testAStallIsLikelyToEndAndOneThatEndedSaysNothing(): void
    {
        $stalled = self::outlook([...self::COOK, '240 153', '270 155', '300 157'], '305', '203');
        self::assertTrue($stalled?->stall?->isOpen);
        self::assertNotNull($stalled->stallEnds?->likely);
        self::assertFalse($stalled->stallEnds->earliest->isAfter($stalled->stallEnds->likely));
        self::assertTrue($stalled->window?->likely?->isAfter($stalled->stallEnds->earliest));
        self::assertNull(self::outlook(self::COOK, '215', '203')?->stallEnds);
    }

    /**
     * @param list<string> $lines
     * @param list<NarrowingInput> $never
     */
    #[DataProvider('answers')]
    public function testWhatWasSaidIsNotAskedFor(array $lines, array $never): void
    {
        $outlook = FallOutlook::of(
            Story::of('0 cook', '100 170', ...$lines)->about('lamb roast')
                ->withThermometer('T9', '500 32 40')
                ->assess('150'),
        );
        self::assertNotNull($outlook);
        self::assertNotContains($outlook->asks, $never);
    }

    /** @return iterable<string, array{list<string>, list<NarrowingInput>}> */
    public static function answers(): iterable
    {
        yield 'the air' => [['110 cool method=walk-in around=38', '112 140', '140 125'], [NarrowingInput::Air]];
        yield 'depth' => [['110 cool method=walk-in depth_mm=50', '112 140', '140 125'], [NarrowingInput::Depth]];
        yield 'covered' => [['110 cool method=walk-in covered=true', '112 140', '140 125'], [NarrowingInput::Method]];
        yield 'all of it' => [
            ['110 cool method=walk-in around=38 depth_mm=50 covered=true', '112 140', '140 125'],
            [NarrowingInput::Air, NarrowingInput::Depth, NarrowingInput::Method],
        ];
    }

    /**
     * @param list<string> $lines
     * @param list<string> $expected
     */
    #[DataProvider('late')]
    public function testWhatBringsALateCookInIsOfferedTheSurestFirst(array $lines, array $expected): void
    {
        $assessment = Story::of(...$lines)->about('lamb roast')->withThermometer('T9', '500 32 40')->assess('215');
        $target = Temperature::fahrenheit('203');
        $outlook = CookOutlook::of($assessment, $target);
        self::assertNotNull($outlook);
        $rescue = CookRescue::of($assessment, $outlook, $target);
        $kinds = array_map(static fn (CookRemedy $one): string => $one->kind->value, $rescue->remedies);
        sort($kinds);
        self::assertSame($expected, $kinds);
        $late = array_map(static fn (CookRemedy $one): float => $one->late, $rescue->remedies);
        $sorted = $late;
        sort($sorted);
        self::assertSame($sorted, $late);
        foreach ($rescue->remedies as $one) {
            self::assertSame($one->kind === CookRemedyKind::Wrap ? null : '300', $one->set?->number());
        }
    }

    /** @return iterable<string, array{list<string>, list<string>}> */
    public static function late(): iterable
    {
        $wanted = static fn (string $at): array => [
            ...self::COOK,
            '211 note ready_by='.Story::at($at)->rfc3339(),
        ];
        yield 'wanted by no time' => [self::COOK, []];
        yield 'not late' => [$wanted('2400'), []];
        yield 'late' => [$wanted('330'), ['hotter', 'hotter_wrap', 'wrap']];
        yield 'wrapped already' => [[...$wanted('330'), '212 wrap'], ['hotter']];
        yield 'as hot as it gets' => [
            [...$wanted('330'), '211 pit_set set=310'],
            ['wrap'],
        ];
    }

    public function testAnOpenLidCostsTimeAndOneThatWasClosedSoonCostsLess(): void
    {
        $likely = static fn (string ...$lid): int => self::outlook(
            ['0 cook set=275', '1 40', ...array_values($lid)],
            '70',
            '203',
        )?->window?->likely->epoch ?? 0;
        $shut = $likely();
        $short = $likely('10 note pit_sign=lid_opened', '12 note pit_sign=lid_closed');
        $long = $likely('10 note pit_sign=lid_opened', '55 note pit_sign=lid_closed');
        self::assertGreaterThan(0, $shut);
        self::assertGreaterThanOrEqual($shut, $short);
        self::assertGreaterThan($short + 300, $long);
        $unsaid = $likely('10 note pit_sign=lid_opened');
        self::assertEqualsWithDelta($short, $unsaid, 300.0, 'nobody said that it was closed');
    }

    /** @param list<string> $lines */
    private static function outlook(array $lines, string $asOf, string $target): ?CookOutlook
    {
        return CookOutlook::of(
            Story::of(...$lines)->about('lamb roast')->withThermometer('T9', '500 32 40')->assess($asOf),
            Temperature::fahrenheit($target),
        );
    }
}
