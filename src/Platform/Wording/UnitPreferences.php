<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Measure\TemperatureUnit;

/** The units and the clock of the person at the screen. */
interface UnitPreferences
{
    public function unit(): TemperatureUnit;

    public function weightUnit(): WeightUnit;

    public function lengthUnit(): LengthUnit;

    public function clock(): ClockFace;
}
