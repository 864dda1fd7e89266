<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Temperature;

/** A reading as a forecast sees it: hours and degrees Celsius, in floats. Never for a verdict. */
final readonly class Point
{
    private function __construct(public int $at, public float $celsius)
    {
    }

    public static function of(int $at, Temperature $temperature): self
    {
        return new self($at, self::celsius($temperature));
    }

    public static function at(int $at, float $celsius): self
    {
        return new self($at, $celsius);
    }

    public static function celsius(Temperature $temperature): float
    {
        return $temperature->ninetieths / 90;
    }
}
