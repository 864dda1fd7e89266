<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Trends;

use Verjuicer\App\Projection\Learning\LearnedPrior;
use Verjuicer\Core\Forecast\Belief\ParameterSample;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A version of learned values, in words. */
final readonly class LearnedVersion
{
    private const SAID = [
        ParameterSample::HALF => 'thicker',
        ParameterSample::TRANSFER => 'gives',
        ParameterSample::BIAS => 'warmer',
        ParameterSample::DRYING => 'dries',
    ];
    private const LEAST_PERCENT = 3;
    private const LEAST_DEGREES = 0.5; // °C

    /**
     * @param list<array{string, string}> $says which sentence of `own_cooks.says`, and by how much: percent, or degrees
     *     of the site's unit
     * @param int $narrower percent by which the learned spread is narrower than the prior, in the median
     */
    private function __construct(public LearnedPrior $prior, public array $says, public int $narrower)
    {
    }

    public static function of(LearnedPrior $prior, TemperatureUnit $unit): self
    {
        $says = [];
        foreach (self::SAID as $unknown => $sentence) {
            $aside = ParameterSample::aside($unknown, $prior->learned->unknowns[$unknown][0] ?? 0.0) ?? 0.0;
            $figure = abs($unknown !== ParameterSample::BIAS ? 100 * $aside : $aside);
            if ($figure >= ($unknown === ParameterSample::BIAS ? self::LEAST_DEGREES : self::LEAST_PERCENT)) {
                $degrees = $unit === TemperatureUnit::Fahrenheit && $unknown === ParameterSample::BIAS ? 1.8 : 1.0;
                $says[] = [$sentence.($aside > 0 ? '' : '_not'), (string) (int) round($figure * $degrees)];
            }
        }
        $spreads = array_column($prior->learned->unknowns, 1);
        sort($spreads);
        $middle = $spreads[intdiv(\count($spreads), 2)] ?? 1.0;

        return new self($prior, $says, (int) round(100 * (1.0 - $middle)));
    }
}
