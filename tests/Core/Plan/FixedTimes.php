<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Plan;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Plan\ChillPlan;
use Verjuicer\Core\Plan\CookTime;
use Verjuicer\Core\Plan\Duration;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\TimeEstimates;
use Verjuicer\Core\Record\RecordedProduct;

/**
 * Times that are easy to reckon with: a cook takes one to ten hours, each as likely; an hour less for each turn of the
 * pit above 121 °C and for a wrap; food stays hot for four hours in a box, one elsewhere.
 */
final readonly class FixedTimes implements TimeEstimates
{
    public const HOUR = 3600;

    public function cook(RecordedProduct $product, HeatPlan $heat): CookTime
    {
        $less = (int) round(($heat->set - 121.0) / HeatPlan::HOTTER) + ($heat->wrap === null ? 0 : 1);
        $wrapped = match (true) {
            $heat->wrap === null => null,
            $heat->wrapAfter !== null => Duration::exactly($heat->wrapAfter),
            default => Duration::exactly(self::HOUR / 2),
        };

        return new CookTime(self::evenly(1, 10, self::HOUR, -$less), $wrapped);
    }

    public function hot(RecordedProduct $product, Holding $place, float $celsius): Duration
    {
        return Duration::exactly(($place === Holding::Box ? 4 : 1) * self::HOUR);
    }

    public function cooling(ChillPlan $chill): CoolingOdds
    {
        return CoolingOdds::of($chill->method, $chill->depth, $chill->isCovered, null, self::gates());
    }

    public static function gates(): CoolingLimits
    {
        return new CoolingLimits(57.2, 21.1, 5.0, 2 * self::HOUR, 6 * self::HOUR);
    }

    /** As many lengths, each as likely. */
    public static function evenly(int $from, int $to, int $unit, int $more = 0): Duration
    {
        return Duration::of(
            new Odds(
                array_map(
                    static fn (int $one): array => [max(1, $one + $more) * $unit, 1.0],
                    range($from, $to),
                ),
            ),
            0,
        );
    }
}
