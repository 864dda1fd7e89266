<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Tests\Core\Story;

/** Cooked through, by category, piece by piece and spot by spot. */
final class CookCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        foreach (self::cooks() as $name => $case) {
            [$verdict, $product, $lines] = $case;
            yield $name => ['cook', $verdict, $lines, $case[3] ?? '600', $product];
        }
    }

    /** @return iterable<string, array{0: string, 1: string, 2: list<string>, 3?: string}> */
    private static function cooks(): iterable
    {
        $once = static fn (string $reading): array => ['0 cook', '120 '.$reading, '130 serve'];
        yield 'poultry at 165' => ['met', 'turkey roast', $once('165.0')];
        yield 'poultry a tenth under' => ['broken', 'turkey roast', $once('164.9')];
        yield 'poultry at 74 C' => ['met', 'duck whole_bird', $once('74.0c')];
        yield 'poultry a tenth under in C, though over 165 F' => ['broken', 'duck whole_bird', $once('73.9c')];
        yield 'stuffed beef is judged as poultry' => ['broken', 'beef roast stuffed', $once('160')];
        yield 'wild game is judged as poultry' => ['broken', 'game roast wild', $once('160')];
        yield 'farmed game is not' => ['met', 'game roast', $once('160')];
        yield 'ground meat at 158 is done at once' => ['met', 'pork comminuted', $once('158')];
        yield 'ground meat at 157.9 needs 17 s, a settled reading is worth 20' => [
            'met',
            'pork comminuted',
            $once('157.9'),
        ];
        yield 'ground meat under 155 needs a minute' => ['not_shown', 'pork comminuted', $once('154.9')];
        yield 'non-intact never at 145' => ['broken', 'beef cut non_intact', $once('144.9')];
        yield 'cut at 145' => ['met', 'beef cut', $once('145')];
        yield 'cut at 63 C' => ['met', 'beef cut', $once('63.0c')];
        yield 'cut a tenth under 63 C' => ['broken', 'beef cut', $once('62.9c')];
        yield 'mixed units: the hotter by physics falls short, the cooler passes its own figure' => [
            'met',
            'beef cut',
            ['0 cook', '119 62.9c', '120 145.0', '130 serve'],
        ];
        yield 'fish is a cut' => ['met', 'fish cut', $once('145')];
        yield 'ready-to-eat has no cooking rule' => ['none', 'pork rte_commercial', $once('100')];
        yield 'ready-to-eat poultry neither' => ['none', 'chicken rte_commercial', $once('100')];

        yield 'non-intact 145 for 180 s with the 20 s of a settled reading' => [
            'met',
            'beef cut non_intact',
            ['0 cook', '120 145', '122:40 145', '130 serve'],
        ];
        yield 'one second less' => [
            'not_shown',
            'beef cut non_intact',
            ['0 cook', '120 145', '122:39 145', '130 serve'],
        ];
        yield 'a dip between begins the run anew' => [
            'not_shown',
            'beef cut non_intact',
            ['0 cook', '120 146', '121 144.9', '123 146', '130 serve'],
        ];
        yield 'the dip ends the hotter row only' => [
            'met',
            'beef cut non_intact',
            ['0 cook', '120 151', '121 146', '122:40 151', '130 serve'],
        ];
        yield 'gaps of 30 min hold a run together' => [
            'met',
            'beef cut non_intact',
            ['0 cook', '60 146', '90 146', '130 serve'],
        ];
        yield 'a second more does not' => [
            'not_shown',
            'beef cut non_intact',
            ['0 cook', '60 146', '90:01 146', '130 serve'],
        ];
        yield 'injected before the window ends' => [
            'not_shown',
            'beef cut',
            ['0 cook', '120 146', '125 inject', '130 serve'],
        ];
        yield 'injected at the end, listed before it' => [
            'not_shown',
            'beef cut',
            ['0 cook', '120 146', '130 inject', '130 serve'],
        ];
        yield 'injected at the end, listed after it' => [
            'met',
            'beef cut',
            ['0 cook', '120 146', '130 serve', '130 inject'],
        ];
        yield 'tenderized counts as injected' => [
            'not_shown',
            'beef cut',
            ['-10 tenderize', '0 cook', '120 146', '130 serve'],
        ];

        $dwell = static fn (string $cook, string $temp, string $from, string $to): array => [
            '0 '.$cook,
            $from.' '.$temp,
            $to.' '.$temp,
            '130 serve',
        ];
        yield 'roast 140 for 12 min, open at 325' => [
            'met',
            'lamb roast 3.1kg',
            $dwell('cook oven=convection set=325', '140', '100', '111:40'),
        ];
        yield 'a second short' => [
            'not_shown',
            'lamb roast 3.1kg',
            $dwell('cook oven=convection set=325', '140', '100', '111:39'),
        ];
        yield 'a tenth cooler falls to the row of 18 min' => [
            'not_shown',
            'lamb roast 3.1kg',
            $dwell('cook oven=convection set=325', '139.9', '100', '111:40'),
        ];
        yield 'closed a degree under 325' => [
            'broken',
            'lamb roast 3.1kg',
            $dwell('cook oven=convection set=324.9', '140', '100', '120'),
        ];
        yield 'still ovens need 350' => [
            'broken',
            'lamb roast 3.1kg',
            $dwell('cook oven=still set=349', '140', '100', '120'),
        ];
        yield 'still at 350' => ['met', 'lamb roast 3.1kg', $dwell('cook oven=still set=350', '140', '100', '120')];
        yield 'in C the figure is 163' => [
            'met',
            'lamb roast 3.1kg',
            $dwell('cook oven=convection set=163c', '60.0c', '100', '120'),
        ];
        yield 'from 4.5 kg 250 is enough' => [
            'met',
            'beef roast 4.5kg',
            $dwell('cook oven=still set=250', '140', '100', '120'),
        ];
        yield 'just under 4.5 kg it is not' => [
            'broken',
            'beef roast 4.4999kg',
            $dwell('cook oven=still set=250', '140', '100', '120'),
        ];
        yield 'no weight, no low rows' => [
            'broken',
            'beef roast',
            $dwell('cook oven=convection set=325', '140', '100', '120'),
        ];
        yield 'high humidity needs none' => [
            'met',
            'beef roast',
            $dwell('cook oven=high_humidity set=250', '140', '100', '120'),
        ];
        yield 'but no more than 250' => [
            'broken',
            'beef roast',
            $dwell('cook oven=high_humidity set=250.1', '140', '100', '120'),
        ];
        yield 'no set point, not open' => [
            'broken',
            'beef roast 5kg',
            $dwell('cook oven=convection', '140', '100', '120'),
        ];
        yield 'no oven, not open' => ['broken', 'beef roast 5kg', $dwell('cook set=325', '140', '100', '120')];
        yield 'a later set point counts' => [
            'broken',
            'beef roast 5kg',
            ['0 cook oven=still set=260', '50 pit_set set=249', '100 140', '120 140', '130 serve'],
        ];
        yield 'one before the cook does not' => [
            'met',
            'beef roast 5kg',
            ['-5 pit_set set=200', '0 cook oven=still set=260', '100 140', '120 140', '200 serve'],
        ];
        yield 'every cook of the window counts' => [
            'broken',
            'beef roast 5kg',
            ['0 cook oven=still set=225', '50 rest', '60 cook oven=still set=400', '100 140', '120 140', '130 serve'],
        ];
        yield 'closed low rows leave 145 for 4 min' => [
            'met',
            'beef roast 3kg',
            $dwell('cook oven=still set=225', '145', '100', '103:40'),
        ];
        yield 'a second short of 4 min' => [
            'not_shown',
            'beef roast 3kg',
            $dwell('cook oven=still set=225', '145', '100', '103:39'),
        ];
        yield 'and 144.9 counts for nothing' => [
            'broken',
            'beef roast 3kg',
            $dwell('cook oven=still set=225', '144.9', '100', '120'),
        ];
        yield 'carry-over in the rest counts' => [
            'met',
            'beef roast 3kg',
            ['0 cook', '100 141', '101 rest', '105 158', '200 serve'],
        ];
        yield 'but not once held hot' => [
            'broken',
            'beef roast 3kg',
            ['0 cook', '100 141', '101 hot_hold', '105 158', '200 serve'],
        ];

        yield 'open and not there' => ['running', 'beef cut', ['0 cook', '100 141'], '120'];
        yield 'open and not read' => ['running', 'beef cut', ['0 cook'], '120'];
        yield 'over and not read' => ['not_shown', 'beef cut', ['0 cook', '100 serve'], '120'];
        yield 'a piece not read, open' => ['running', 'beef cut 2pieces', ['0 cook', '100 150'], '120'];
        yield 'a piece not read, over' => ['not_shown', 'beef cut 2pieces', ['0 cook', '100 150', '110 serve'], '120'];
        yield 'the coldest spot decides' => [
            'broken',
            'beef cut',
            ['0 cook', '100 150 @flat', '101 140 @point', '110 serve'],
            '120',
        ];
        yield 'the probe left a spot that was not there yet' => [
            'met',
            'beef cut',
            ['0 cook', '90 100', '95 probe_moved', '100 150 @thick', '110 serve'],
        ];
        yield 'what it read so far never counts, even hot' => [
            'not_shown',
            'beef cut non_intact',
            ['0 cook', '90 146', '91 probe_moved', '94 146', '110 serve'],
        ];
        yield 'it left after it had reached' => [
            'met',
            'beef cut',
            ['0 cook', '90 150', '95 probe_moved', '110 serve'],
        ];
        yield 'it left and nothing else was read' => [
            'not_shown',
            'beef cut',
            ['0 cook', '90 100', '95 probe_moved', '110 serve'],
        ];
        yield 'it left another piece' => ['broken', 'beef cut', ['0 cook', '90 100', '95 probe_moved p2', '110 serve']];
        yield 'a rest before any cook is no window' => ['none', 'beef cut', ['0 rest', '10 150', '20 serve']];
        yield 'two windows, the worse decides' => [
            'broken',
            'beef cut',
            ['0 cook', '60 150', '70 cool', '80 cook', '90 100', '100 serve'],
        ];
    }

    public function testAFindingTellsWhenOneMoreReadingShowsIt(): void
    {
        $assessment = Story::of('0 cook', '100 146', '101 146')->about('lamb roast')->assess('102');
        self::assertSame('cook.dwelling', $assessment->findings[0]->message);
        self::assertSame(Story::at('103:40')->epoch, $assessment->countdowns[0]->deadline->epoch);
    }

    public function testTheAdvisoryMarksTheFindingAndTakesNothingBack(): void
    {
        $finding = Story::of('0 cook', '60 125', '70 serve')->about('beef roast 3kg advisory')->assess('80')
            ->findings[0];
        self::assertTrue($finding->isUnderAdvisory);
        self::assertSame('broken', $finding->verdict?->value);
    }

    /** @param list<string> $lines */
    #[DataProvider('lowRows')]
    public function testSaysWhyTheLowRowsAreOpenOrClosed(string $expected, string $product, array $lines): void
    {
        self::assertSame(
            $expected,
            Story::of(...$lines)->about($product)->assess('100')->cooks[0]->window->lowRows->value,
        );
    }

    /** @return iterable<array{string, string, list<string>}> */
    public static function lowRows(): iterable
    {
        yield ['open', 'lamb roast 3.1kg', ['0 cook oven=convection set=325']];
        yield ['open', 'lamb roast', ['0 cook oven=high_humidity set=250']];
        yield ['oven_unknown', 'lamb roast 3.1kg', ['0 cook set=325']];
        yield ['set_unknown', 'lamb roast 3.1kg', ['0 cook oven=convection']];
        yield ['weight_unknown', 'lamb roast', ['0 cook oven=convection set=325']];
        yield ['closed', 'lamb roast 3.1kg', ['0 cook oven=convection set=250']];
        yield ['closed', 'lamb roast', ['0 cook oven=high_humidity set=251']];
        yield ['closed', 'lamb roast 3.1kg', ['0 cook oven=convection set=325', '10 pit_set set=300']];
        yield [
            'set_unknown',
            'lamb roast 3.1kg',
            ['0 cook oven=convection set=325', '10 rest', '20 cook oven=convection'],
        ];
        yield ['no_roast', 'lamb cut 3.1kg', ['0 cook oven=convection set=325']];
        yield ['no_roast', 'lamb roast 3.1kg', ['-5 inject', '0 cook oven=convection set=325']];
    }

    #[DataProvider('unreadPieces')]
    public function testNamesThePiecesThatWereNotRead(string $missing, string ...$lines): void
    {
        $findings = Story::of('0 cook', ...array_values($lines))->about('beef cut 7pieces')->assess('100')->findings;
        $unread = array_values(
            array_filter(
                $findings,
                static fn ($finding): bool => $finding->rule === 'cook' && $finding->track === null,
            ),
        );
        self::assertSame($missing, $unread[0]->values['missing']);
    }

    /** @return iterable<array<string>> */
    public static function unreadPieces(): iterable
    {
        yield ['1–7'];
        yield ['2–7', '9 150 p1'];
        yield ['1, 3, 5–7', '9 150 p2', '9 150 p4'];
        yield ['7', '9 150 p1', '9 150 p2', '9 150 p3', '9 150 p4', '9 150 p5', '9 150 p6'];
        yield ['1–3, 5–6', '9 150 p7', '9 150 p4'];
        yield ['1–3, 5–7', '9 150 p9', '9 150 p4'];
    }

    public function testARecordThatClaimsATrillionPiecesIsJudgedAllTheSame(): void
    {
        $unread = Story::of('0 cook', '9 150 p2')->about('beef cut 1000000000000pieces')->assess('100')->findings[1];
        self::assertSame('1, 3–1000000000000', $unread->values['missing']);
    }

    public function testWhatCameOffEarlyIsToldWhichTwoReadingsShowThatItCarriedOver(): void
    {
        $pulled = ['0 cook oven=still set=350', '90 138', '91 rest'];
        self::assertSame(['cook.read_carry_over'], self::options('cook', $pulled, '92', 'lamb roast 3kg'));
        $message = static fn (string ...$lines): string => array_values(
            array_filter(
                Story::of(...array_values($lines))->about('pork roast')->assess('95')->findings,
                static fn (Finding $finding): bool => $finding->rule === 'cook',
            ),
        )[0]->message;
        self::assertSame('cook.carry_over', $message(...$pulled));
        self::assertSame(
            'cook.carry_over_once',
            array_values(
                array_filter(
                    Story::of(...$pulled)->about('pork cut')->assess('95')->findings,
                    static fn (Finding $one): bool => $one->rule === 'cook',
                ),
            )[0]->message,
            'a settled reading is enough where 15 s are',
        );
        self::assertSame(
            'cook.running',
            $message('0 cook oven=still set=350', '90 138'),
            'on the heat it is kept on it',
        );
        self::assertSame(
            'cook.dwelling',
            $message('0 cook oven=still set=350', '90 138', '91 rest', '94:55 145'),
            'once it is there, the second reading has its moment',
        );
    }
}
