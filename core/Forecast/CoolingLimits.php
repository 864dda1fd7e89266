<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\RuleSet;

/** The two limits of a cooling, each with its time from the hot-holding limit on. */
final readonly class CoolingLimits
{
    /**
     * @param float $hot °C, where the clock begins
     * @param float $middle °C, $cold °C
     * @param int $first seconds to the middle, $all seconds to the cold
     */
    public function __construct(
        public float $hot,
        public float $middle,
        public float $cold,
        public int $first,
        public int $all,
    ) {
    }

    /** As the code has them, in the unit they are read in. */
    public static function of(RuleSet $rules, TemperatureUnit $unit): self
    {
        $cooling = $rules->get(CoolingRules::class);

        return new self(
            Point::celsius($rules->limits()->hot->threshold->printedIn($unit)),
            Point::celsius($cooling->middle->threshold->printedIn($unit)),
            Point::celsius($rules->limits()->cold->threshold->printedIn($unit)),
            $cooling->stage1->span->seconds,
            $cooling->total->span->seconds,
        );
    }
}
