<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

use Verjuicer\Core\CoreProblem;

final class MalformedTemperature extends \DomainException implements CoreProblem
{
    public static function notANumber(string $given): self
    {
        return new self(
            \sprintf(
                '"%s" is not a temperature: write a number with at most one decimal, such as 203, 203.5 or 95c.',
                mb_strcut($given, 0, 40),
            ),
        );
    }

    public static function tooFine(string $given): self
    {
        return new self(
            \sprintf(
                '%s has more than one decimal: write it as the thermometer shows it, to a tenth of a degree.',
                $given,
            ),
        );
    }

    public static function outOfRange(int $tenths, TemperatureUnit $unit): self
    {
        return new self(
            \sprintf(
                '%s °%s is out of range: a temperature is from %d to %d °%s. Check the number and the unit.',
                intdiv($tenths, 10),
                $unit->value,
                intdiv($unit->leastTenths(), 10),
                intdiv($unit->greatestTenths(), 10),
                $unit->value,
            ),
        );
    }
}
