<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\Core\Story;

/**
 * What a batch page says of a cook beyond its verdicts: how it is likely to go on, piece by piece, and why the law asks
 * what it asks.
 */
final class CookOutlookTest extends TestCase
{
    private const CLIMBING = ['0 cook set=275', '180 150', '210 158', '240 166'];

    /** @param list<string> $lines */
    #[DataProvider('outlooks')]
    public function testSaysWhenItMayBeDoneAndWhetherThatIsTooLate(
        ?string $expected,
        array $lines,
        string $asOf = '245',
    ): void {
        $outlook = self::outlook($lines, $asOf);
        self::assertSame(
            $expected,
            $outlook === null
                ? null
                : implode(
                    ' ',
                    array_filter(
                        [
                            $outlook->isReached ? 'reached' : ($outlook->window === null ? 'unknown' : 'likely'),
                            $outlook->isWrapped ? 'wrapped' : '',
                            $outlook->stall?->isOpen === true ? 'stalled' : '',
                            $outlook->lateness()->value ?? '',
                            implode(' ', $outlook->unestimated),
                        ],
                        static fn (string $word): bool => $word !== '',
                    ),
                ),
        );
    }

    /** @return iterable<string, array{0: string|null, 1: list<string>, 2?: string}> */
    public static function outlooks(): iterable
    {
        yield 'climbing' => ['likely', self::CLIMBING];
        yield 'wrapped' => ['likely wrapped', [...self::CLIMBING, '241 wrap']];
        yield 'wrapped in a cook before this one' => [
            'likely',
            ['-500 cook', '-400 wrap', '-300 170', '-290 cool', '-100 prep', ...self::CLIMBING],
        ];
        yield 'at its target at every spot' => ['reached', ['0 cook set=275', '200 196 p1', '201 199 p2']];
        yield 'a piece that was read once' => ['likely', [...self::CLIMBING, '241 150 p2']];
        yield 'a piece to be sliced is done sooner' => [
            'reached',
            ['0 cook set=275', '1 note step=target temp=188 p2', '200 196 p1', '201 189 p2'],
        ];
        yield 'one to be chopped later' => [
            'likely',
            ['0 cook set=275', '1 note step=target temp=205 p1', '200 196 p1', '201 199 p2'],
        ];
        yield 'all of it at another' => [
            'reached',
            ['0 cook set=275', '1 note step=target temp=180', '200 181 p1', '201 185 p2'],
        ];
        yield 'one spot is not there' => ['likely', ['0 cook set=275', '200 196 p1', '201 180 p2']];
        yield 'nothing read: by weight and pit' => ['likely', ['0 cook set=275']];
        yield 'the pit is not noted' => ['likely', ['0 cook', '180 150', '210 158', '240 166']];
        yield 'the pit is kept too cold for it' => [
            'unknown 1/core',
            ['0 cook set=150', '180 120', '210 128', '240 136', '242 pit_reading temp=148'],
        ];
        yield 'in the stall' => [
            'likely stalled',
            ['0 cook set=275', '150 150', '200 158', '230 159', '260 161'],
            '265',
        ];
        yield 'suspect readings are as none' => [
            'likely',
            array_map(
                static fn (string $line): string => str_contains($line, 'cook') ? $line : $line.' T9',
                self::CLIMBING,
            ),
        ];
        yield 'off the heat' => [null, [...self::CLIMBING, '244 rest']];
        yield 'back on it to sear' => ['likely', [...self::CLIMBING, '242 rest', '244 cook set=400']];
    }

    public function testComparesWithWhatItIsWantedFor(): void
    {
        $window = self::outlook(self::CLIMBING, '245')?->window;
        self::assertNotNull($window?->latest);
        self::assertNotNull($window->likely);
        self::assertTrue($window->likely->isAfter($window->earliest) && $window->latest->isAfter($window->likely));
        foreach (
            [
                ['sure', $window->earliest->epoch - 60],
                ['maybe', $window->likely->epoch + 60],
                [null, $window->latest->epoch + 60],
            ] as [$expected, $wanted]
        ) {
            $minutes = intdiv($wanted - Story::at('0')->epoch, 60);
            $outlook = self::outlook(
                [...self::CLIMBING, '10 note ready_by='.Story::at((string) $minutes)->rfc3339()],
                '245',
            );
            self::assertSame($expected, $outlook?->lateness()?->value);
        }
        self::assertNull(self::outlook(self::CLIMBING, '245', null), 'nobody said how it is liked');
    }

    /** A whole animal takes days; what comes to stand short of it is told as never, and is not followed for weeks. */
    public function testLooksTwoWeeksAhead(): void
    {
        $record = json_decode(Story::of('0 cook set=225')->about('pork cut 1piece')->json(), true);
        self::assertIsArray($record);
        foreach ([[195, 60, 14 * 24], [218, null, null]] as [$target, $from, $to]) {
            $record['batch']['product']['raw_weight_kg'] = 120;
            $assessment = (new Assessor())->assess(
                Story::reader()->read((string) json_encode($record)),
                Story::rules(),
                Story::at('5'),
            );
            $latest = CookOutlook::of($assessment, Temperature::fahrenheit((string) $target))?->window?->latest;
            $hours = $latest === null ? null : intdiv($latest->epoch - Story::at('5')->epoch, 3600);
            self::assertTrue($from === null ? $hours === null : $hours > $from && $hours < $to, "$target: $hours");
        }
    }

    /** @param list<string> $lines */
    private static function outlook(array $lines, string $asOf, ?string $target = '195'): ?CookOutlook
    {
        return CookOutlook::of(
            Story::of(...$lines)->about('lamb roast 2pieces')->withThermometer('T9', '500 32 40')->assess($asOf),
            $target === null ? null : Temperature::fahrenheit($target),
        );
    }
}
