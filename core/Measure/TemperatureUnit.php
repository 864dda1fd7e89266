<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

enum TemperatureUnit: string
{
    case Fahrenheit = 'F';
    case Celsius = 'C';

    public function other(): self
    {
        return $this === self::Fahrenheit ? self::Celsius : self::Fahrenheit;
    }

    /** The member that holds a temperature of this unit in the open format. */
    public function member(): string
    {
        return $this === self::Fahrenheit ? 'f' : 'c';
    }

    public function leastTenths(): int
    {
        return -400;
    }

    public function greatestTenths(): int
    {
        return $this === self::Fahrenheit ? 10_000 : 5_400;
    }
}
