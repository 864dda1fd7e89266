<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Forecast\LikelyTime;
use Verjuicer\Core\Measure\Instant;

final class LikelyTimeTest extends TestCase
{
    public function testTheMiddleIsTheGeometricOneAndTheEndsHoldNineInTen(): void
    {
        $at = static fn (int $minutes): Instant => Instant::ofEpoch(1_800_000_000 + 60 * $minutes);
        $time = LikelyTime::between($at(0), $at(60), $at(240));
        self::assertNotNull($time);
        self::assertSame($at(120)->epoch, $time->likely()->epoch);
        self::assertEqualsWithDelta(0.95, $time->lateFor($at(60)), 0.001);
        self::assertEqualsWithDelta(0.5, $time->lateFor($at(120)), 0.001);
        self::assertEqualsWithDelta(0.05, $time->lateFor($at(240)), 0.001);
        self::assertSame(1.0, $time->lateFor($at(-1)), 'a moment that has passed');
        self::assertNull(LikelyTime::between($at(0), $at(60), null), 'what may never be has no likeliest time');
        self::assertFalse(LikelyTime::isWithinSight($at(14 * 1440 + 1), $at(0)));
    }
}
