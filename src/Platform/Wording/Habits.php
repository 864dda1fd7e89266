<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Measure\TemperatureUnit;

/** How whoever looks is used to read weights and times. */
interface Habits
{
    public function unit(): TemperatureUnit;

    public function weightUnit(): WeightUnit;

    public function clock(): ClockFace;
}
