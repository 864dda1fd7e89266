<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Leg;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** How warm the middle gets once meat is pulled and rests on a rack under foil: heat goes on into it from outside. */
final readonly class CarryOver
{
    private function __construct(public Temperature $least, public Temperature $likely, public Temperature $most)
    {
    }

    /** @return self|null null where it may never be so warm */
    public static function of(Belief $belief, Temperature $pulledAt): ?self
    {
        $rest = new Leg(0, Holding::Rack, [], null, true, null);
        $to = $belief->carriedTo(Point::celsius($pulledAt), $rest, Belief::WITHIN);
        if ($to === null) {
            return null;
        }
        $told = static fn (float $celsius): Temperature => Temperature::ofTenths(
            10 * (int) round($pulledAt->unit === TemperatureUnit::Celsius ? $celsius : 32 + 1.8 * $celsius),
            $pulledAt->unit,
        );

        return new self($told($to[0]), $told($to[1]), $told($to[2]));
    }
}
