<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** How far two temperatures may be apart, by unit. */
final readonly class Tolerance
{
    public function __construct(public string $citation, private int $tenthsFahrenheit, private int $tenthsCelsius)
    {
    }

    /** In tenths of a degree of this unit. */
    public function tenths(TemperatureUnit $unit): int
    {
        return $unit === TemperatureUnit::Fahrenheit ? $this->tenthsFahrenheit : $this->tenthsCelsius;
    }

    /** Two temperatures in one unit by that unit's figure; in two units exactly, by that of the first. */
    public function covers(Temperature $one, Temperature $other): bool
    {
        $permitted = $this->tenths($one->unit);
        if ($one->unit === $other->unit) {
            return abs($one->tenths - $other->tenths) <= $permitted;
        }

        return abs($one->ninetieths - $other->ninetieths)
            <= $permitted * ($one->unit === TemperatureUnit::Fahrenheit ? 5 : 9);
    }
}
