<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Plan\Duration;
use Verjuicer\Core\Plan\LearnedPace;

final class DurationTest extends TestCase
{
    public function testSaysByWhenAndWhatTheChanceOfLongerIs(): void
    {
        $one = FixedTimes::evenly(1, 10, 60);
        self::assertSame(60, $one->by(0.05));
        self::assertSame(360, $one->by(0.5));
        self::assertSame(600, $one->by(0.9));
        self::assertSame(0.5, $one->longerThan(300));
        self::assertSame(0.0, $one->longerThan(600));
        self::assertSame(1.0, $one->longerThan(59));
        self::assertSame(660, $one->plus(60)->by(0.99));
    }

    public function testWhatMayNeverEndIsLongerThanAnything(): void
    {
        $half = Duration::of(new Odds([[60, 1.0], [null, 1.0]]), 0);
        self::assertSame(60, $half->by(0.3));
        self::assertNull($half->by(0.9));
        self::assertSame(0.5, $half->longerThan(\PHP_INT_MAX - 1));
        self::assertNull($half->plus(5)->by(0.9));
    }

    public function testTheLastOfSeveralIsLaterAndTheFirstEarlierAndOneIsItself(): void
    {
        $one = FixedTimes::evenly(1, 100, 60);
        $before = [$one->by(0.5), $one->by(0.5)];
        foreach ([1, 2, 4, 8, 12] as $pieces) {
            $now = [$one->ofFirst($pieces)->by(0.5), $one->ofLast($pieces)->by(0.5)];
            $pieces === 1
                ? self::assertSame($before, $now)
                : self::assertTrue($now[0] < $before[0] && $now[1] > $before[1], "$pieces pieces");
            $before = $now;
        }
        self::assertSame($before, [$one->ofFirst(60)->by(0.5), $one->ofLast(60)->by(0.5)]);
    }

    public function testOneAfterTheOther(): void
    {
        $one = FixedTimes::evenly(1, 2, 60);
        self::assertEqualsWithDelta(0.25, $one->thenOverBy($one, 120), 0.01);
        self::assertEqualsWithDelta(0.75, $one->thenOverBy($one, 180), 0.01);
        self::assertSame(1.0, $one->thenOverBy($one, 240));
    }

    public function testAKitchensOwnCooksMoveAndNarrowIt(): void
    {
        $usual = FixedTimes::evenly(4, 16, 3600);
        $two = LearnedPace::learnt([[18_000, $usual], [18_000, $usual]]);
        self::assertSame([1.0, 1.0, 0], self::told($two), 'two say nothing');
        $cooks = array_fill(0, 12, [7 * 3600, $usual]);
        $pace = LearnedPace::learnt($cooks);
        self::assertSame(12, $pace->cooks);
        $own = $usual->at($pace);
        self::assertEqualsWithDelta(7.4 * 3600, (float) $own->by(0.5), 1800);
        self::assertLessThan((int) $usual->by(0.9) - (int) $usual->by(0.1), (int) $own->by(0.9) - (int) $own->by(0.1));
        $odd = LearnedPace::learnt([...\array_slice($cooks, 0, 10), [90_000, $usual], [600, $usual]]);
        self::assertEqualsWithDelta($pace->factor, $odd->factor, 0.001, 'two wrong times change nothing');
        self::assertSame($usual->by(0.1), $usual->at(LearnedPace::usual())->by(0.1));
    }

    /** @return array{float, float, int} */
    private static function told(LearnedPace $pace): array
    {
        return [$pace->factor, $pace->spread, $pace->cooks];
    }
}
