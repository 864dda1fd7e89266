<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\CookRoute;
use Verjuicer\Core\Forecast\Belief\Leg;
use Verjuicer\Core\Forecast\Belief\Normal;
use Verjuicer\Core\Forecast\Belief\ParameterSample;
use Verjuicer\Core\Forecast\Belief\Prior;
use Verjuicer\Core\Forecast\Belief\Trajectory;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Tests\Core\Story;

/** What lay unchanged for months is followed by days, and warms as what lay for one does; what stands is left. */
final class TrajectoryTest extends TestCase
{
    private const DAY = 86_400;

    public function testWhatLayForMonthsWarmsAsWhatLayForADay(): void
    {
        $short = $this->warmed(self::DAY);
        foreach ([3, 60, 200] as $days) {
            foreach ($this->warmed($days * self::DAY) as $hour => $celsius) {
                self::assertEqualsWithDelta($short[$hour], $celsius, 0.3, "$days days, hour $hour");
            }
        }
    }

    public function testWhatStandsIsNotFollowedAnyMore(): void
    {
        $never = static fn (): bool => false;
        $ways = [
            'in a cabinet' => CookRoute::ahead(Holding::Cabinet, 66.0, null, false, 0),
            'in the cold' => CookRoute::ahead(Holding::WalkIn, 4.0, null, false, 0),
        ];
        foreach ($ways as $name => $way) {
            $ahead = $this->course($way, 0)->ahead(14 * self::DAY, $never);
            $last = $ahead[\count($ahead) - 1];
            self::assertLessThan(3 * self::DAY, $last[0], $name);
            // Nor is it given up on the way: it stands at what is around it, or where its water keeps it.
            $before = $ahead[\count($ahead) - 3];
            self::assertEqualsWithDelta($before[1], $last[1], 0.02, $name);
        }
        $leaves = CookRoute::ahead(Holding::Cabinet, 66.0, null, false, 0)->then(
            new Leg(5 * self::DAY, Holding::WalkIn, [[5 * self::DAY, 4.0]], null, false, null),
        );
        $ahead = $this->course($leaves, 0)->ahead(14 * self::DAY, $never);
        self::assertLessThan(10.0, $ahead[\count($ahead) - 1][1], 'what is still to come is waited for');
    }

    /** @return list<float> °C an hour apart, in a cabinet after so long in the cold */
    private function warmed(int $cold): array
    {
        $way = CookRoute::ahead(Holding::WalkIn, 4.0, 0.05, false, 0)->then(
            new Leg($cold, Holding::Cabinet, [[$cold, 70.0], [$cold + 3600, 66.0]], null, true, null),
        );
        $moments = array_map(static fn (int $hour): int => $cold + $hour * 3600, range(0, 8));

        return $this->course($way, $cold + self::DAY)->read($moments);
    }

    private function course(CookRoute $way, int $asOf): Trajectory
    {
        $product = Story::of('0 cook set=250')->about('pork cut 1piece')->record()->product;
        $prior = Prior::of($product, 0.09);

        return new Trajectory(
            new ParameterSample(Normal::numbers(3), $prior),
            $way,
            MeatProperties::of($prior->composition),
            101_325.0,
            60.0,
            $asOf,
        );
    }
}
