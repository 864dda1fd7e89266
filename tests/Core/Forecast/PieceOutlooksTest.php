<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\PieceOutlooks;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\Core\Story;

/** A piece that nobody read is done at some time, too, and may be the last. */
final class PieceOutlooksTest extends TestCase
{
    private const HEAT = ['0 cook set=250'];

    public function testThePiecesNobodyReadAreForecastByTheirThickness(): void
    {
        $every = self::every(self::HEAT, [100, 130, 80]);
        $likely = self::likely($every);
        self::assertSame(['1/core', '2/core', '3/core'], array_keys($likely));
        self::assertGreaterThan($likely['1/core'], $likely['2/core']);
        self::assertLessThan($likely['1/core'], $likely['3/core']);
        self::assertSame('2/core', $every->slowest);
        self::assertGreaterThanOrEqual($likely['2/core'] - 300, $every->all?->likely?->epoch);
        self::assertFalse($every->isDone);
    }

    public function testWhatOnePieceShowsOfThePitHoldsForTheOthers(): void
    {
        $before = self::likely(self::every(self::HEAT, [100, 100]));
        $slow = self::likely(self::every([...self::HEAT, '120 60 p1', '180 74 p1'], [100, 100]));
        $quick = self::likely(self::every([...self::HEAT, '120 120 p1', '180 145 p1'], [100, 100]));
        self::assertGreaterThan($before['2/core'] + 1800, $slow['2/core']);
        self::assertLessThan($before['2/core'] - 1800, $quick['2/core']);
    }

    public function testABatchIsDoneWhenEachPieceOfItIs(): void
    {
        $read = [...self::HEAT, '180 204 p1'];
        $every = self::every($read, [100, 100]);
        self::assertSame('2/core', $every->slowest);
        self::assertNotNull($every->all);
        self::assertFalse($every->isDone, 'the other was never read');
        $every = self::every([...$read, '181 205 p2'], [100, 100]);
        self::assertTrue($every->isDone);
        self::assertNull($every->all);
        self::assertNull($every->slowest);
    }

    public function testAWrapOfOnePieceIsNoneOfTheOthers(): void
    {
        $isWrapped = static function (string ...$lines): bool {
            $story = Story::of(...self::HEAT, ...$lines)->about('pork cut 2pieces');
            $assessment = (new Assessor())->assess(
                Story::reader()->read((string) preg_replace('/"piece":"(\d)"/', '"piece":$1', $story->json())),
                Story::rules(),
                Story::at('185'),
            );

            return CookOutlook::of($assessment, Temperature::fahrenheit('203'))->isWrapped ?? false;
        };
        $first = '120 wrap with=paper piece=1';
        self::assertFalse($isWrapped());
        self::assertFalse($isWrapped($first));
        self::assertTrue($isWrapped($first, '121 wrap with=foil piece=2'));
        self::assertTrue($isWrapped('120 wrap with=foil'), 'of all, where no piece is named');
        self::assertFalse($isWrapped('120 wrap with=foil', '150 unwrap piece=2'));
    }

    /**
     * @param list<string> $lines
     * @param list<int> $thick mm
     */
    private static function every(array $lines, array $thick): PieceOutlooks
    {
        $record = json_decode(Story::of(...$lines)->about('pork cut '.\count($thick).'pieces')->json(), true);
        self::assertIsArray($record);
        $record['batch']['product']['thickness_mm'] = $thick;
        $read = Story::reader()->read((string) json_encode($record));
        $assessment = (new Assessor())->assess($read, Story::rules(), Story::at('185'));
        $cook = CookOutlook::of($assessment, Temperature::fahrenheit('203'));
        self::assertNotNull($cook);

        return PieceOutlooks::of($assessment, $cook);
    }

    /** @return array<string, int> seconds since 1970, by track */
    private static function likely(PieceOutlooks $every): array
    {
        $likely = [];
        foreach ($every->tracks as $track) {
            self::assertNotNull($track->crossing?->likely);
            $likely[$track->track] = $track->crossing->likely->epoch;
        }

        return $likely;
    }
}
