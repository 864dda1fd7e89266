<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Course;
use Verjuicer\Core\Forecast\Belief\Draw;
use Verjuicer\Core\Forecast\Belief\Leg;
use Verjuicer\Core\Forecast\Belief\Normal;
use Verjuicer\Core\Forecast\Belief\Prior;
use Verjuicer\Core\Forecast\Belief\Way;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Tests\Core\Story;

/** What lay unchanged for months is followed by days, and warms as what lay for one does. */
final class CourseTest extends TestCase
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

    /** @return list<float> °C an hour apart, in a cabinet after so long in the cold */
    private function warmed(int $cold): array
    {
        $product = Story::of('0 cook set=250')->about('pork cut 1piece')->record()->product;
        $prior = Prior::of($product, 0.09);
        $way = Way::ahead(Holding::WalkIn, 4.0, 0.05, false, 0)->then(
            new Leg($cold, Holding::Cabinet, [[$cold, 70.0], [$cold + 3600, 66.0]], null, true, null),
        );
        $course = new Course(
            new Draw(Normal::numbers(3), $prior),
            $way,
            MeatProperties::of($prior->composition),
            101_325.0,
            60.0,
            $cold + self::DAY,
        );

        return $course->read(array_map(static fn (int $hour): int => $cold + $hour * 3600, range(0, 8)));
    }
}
