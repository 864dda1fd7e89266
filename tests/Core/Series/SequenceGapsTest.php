<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Series;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Core\Series\SensorFault;
use Verjuicer\Core\Series\SensorFaultKind;
use Verjuicer\Core\Series\SequenceGaps;

/** Readings that a sensor numbered and that never came are reported, and no others. */
final class SequenceGapsTest extends TestCase
{
    public function testReportsWhatIsMissingAfterTenMinutes(): void
    {
        [$gaps, $faults] = self::see(SequenceGaps::start(), [1, 2, 3]);
        self::assertSame([], $faults);
        [$gaps, $faults] = self::see($gaps, [127]);
        self::assertSame([], $faults, 'it may still come');
        [$gaps, $faults] = self::see($gaps, [128, 187]);
        self::assertSame([], $faults, '600 s after it');
        [$gaps, $faults] = self::see($gaps, [188]);
        self::assertEquals([new SensorFault(SensorFaultKind::Missing, 30, 1270, 123)], $faults);
        [, $faults] = self::see($gaps, range(189, 260));
        self::assertEquals([new SensorFault(SensorFaultKind::Missing, 1280, 1870, 58)], $faults, 'each once');
    }

    public function testWhatComesLateIsNotMissing(): void
    {
        [$gaps] = self::see(SequenceGaps::start(), [1, 10]);
        [$gaps] = self::see($gaps, [5]);
        [$gaps] = self::see($gaps, [2, 3, 4, 9, 8, 7, 6]);
        [, $faults] = self::see($gaps, [11, 12, ...range(13, 200)]);
        self::assertSame([], $faults);
    }

    public function testOfAGapThatIsHalfFilledTheRestIsMissing(): void
    {
        [$gaps] = self::see(SequenceGaps::start(), [1, 10]);
        [$gaps] = self::see($gaps, [4, 5]);
        [, $faults] = self::see($gaps, range(11, 100));
        self::assertSame([2, 4], array_map(static fn (SensorFault $one): ?int => $one->count, $faults));
    }

    public function testASensorThatCountsFromSomewhereElseHasNoGap(): void
    {
        [$gaps] = self::see(SequenceGaps::start(), [1, 5_000_000]);
        [, $faults] = self::see($gaps, range(5_000_001, 5_000_100));
        self::assertSame([], $faults);
    }

    public function testGoesOnFromWhatWasWritten(): void
    {
        [$gaps] = self::see(SequenceGaps::start(), [1, 5]);
        $written = json_decode((string) json_encode($gaps->toArray()), true);
        [, $faults] = self::see(SequenceGaps::ofArray($written, null, null), range(6, 100));
        self::assertSame([3], array_map(static fn (SensorFault $one): ?int => $one->count, $faults));
        [, $faults] = self::see(SequenceGaps::ofArray(null, 1, 10), range(5, 100));
        $counts = array_map(static fn (SensorFault $one): ?int => $one->count, $faults);
        self::assertSame([3], $counts, 'from before there were gaps');
    }

    /**
     * @param list<int> $numbers each ten seconds after the one before
     *
     * @return array{SequenceGaps, list<SensorFault>}
     */
    private static function see(SequenceGaps $gaps, array $numbers): array
    {
        return $gaps->see(array_map(static fn (int $one): Sample => new Sample($one, 10 * $one, null), $numbers));
    }
}
