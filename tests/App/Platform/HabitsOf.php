<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\UnitPreferences;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A kitchen that works in one system of units throughout. */
final readonly class HabitsOf implements UnitPreferences
{
    public function __construct(private UnitSystem $system)
    {
    }

    public function unit(): TemperatureUnit
    {
        return $this->system->temperature();
    }

    public function weightUnit(): WeightUnit
    {
        return $this->system->weight();
    }

    public function lengthUnit(): LengthUnit
    {
        return $this->system->length();
    }

    public function clock(): ClockFace
    {
        return $this->system->clock();
    }
}
