<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Projection\Report\Deviation;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\Core\Story;

/**
 * What a trend counts: each rule a record breaks or does not show once, when it began, in the pit or unit it was in.
 */
final class DeviationTest extends TestCase
{
    private const COOKED = ['0 cook pit=Drum', '100 170', '110 rest method=foil'];

    /**
     * @param list<array{string, int|null, string|null}> $expected rule, minutes, unit
     * @param list<string> $lines
     */
    #[DataProvider('records')]
    public function testIsNamedOnceWithItsTimeAndPlace(array $expected, array $lines, string $asOf): void
    {
        $assessment = Story::of(...$lines)->assess($asOf);
        $noon = Instant::parse(Story::NOON)->epoch;
        self::assertSame(
            $expected,
            array_map(
                static fn (Deviation $one): array => [
                    $one->rule,
                    $one->at === null ? null : intdiv($one->at->epoch - $noon, 60),
                    $one->unit,
                ],
                Deviation::of($assessment),
            ),
        );
    }

    /** @return iterable<string, array{list<array{string, int|null, string|null}>, list<string>, string}> */
    public static function records(): iterable
    {
        yield 'none' => [[], self::COOKED, '115'];
        yield 'nothing at all' => [[], [], '0'];
        yield 'taken off too soon' => [
            [['cook', 0, 'Drum']],
            ['0 cook pit=Drum', '100 130', '110 hot_hold place=cabinet', '111 140'],
            '120',
        ];
        yield 'a dip in the cabinet' => [
            [['hot_hold', 125, 'cabinet']],
            [...self::COOKED, '120 hot_hold place=cabinet', '125 150', '180 131', '185 141'],
            '190',
        ];
        yield 'no pit named' => [[['cook', 0, null]], ['0 cook', '100 130', '110 serve'], '120'];
    }
}
