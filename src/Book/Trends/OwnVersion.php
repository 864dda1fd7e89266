<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Trends;

use Verjuicer\App\Projection\Own\OwnPrior;
use Verjuicer\Core\Forecast\Belief\Draw;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A version of what own cooks came to, as it is told. */
final readonly class OwnVersion
{
    private const SAID = [
        Draw::HALF => 'thicker',
        Draw::TRANSFER => 'gives',
        Draw::BIAS => 'warmer',
        Draw::DRYING => 'dries',
    ];
    private const LEAST_PERCENT = 3;
    private const LEAST_DEGREES = 0.5; // °C

    /**
     * @param list<array{string, string}> $says which sentence of `own_cooks.says`, and by how much: percent, or degrees
     *     of the site's unit
     * @param int $narrower percent by which what is not known beforehand is narrower than is usual, in the middle
     */
    private function __construct(public OwnPrior $prior, public array $says, public int $narrower)
    {
    }

    public static function of(OwnPrior $prior, TemperatureUnit $unit): self
    {
        $says = [];
        foreach (self::SAID as $unknown => $sentence) {
            $aside = Draw::aside($unknown, $prior->learned->unknowns[$unknown][0] ?? 0.0) ?? 0.0;
            $figure = abs($unknown !== Draw::BIAS ? 100 * $aside : $aside);
            if ($figure >= ($unknown === Draw::BIAS ? self::LEAST_DEGREES : self::LEAST_PERCENT)) {
                $degrees = $unit === TemperatureUnit::Fahrenheit && $unknown === Draw::BIAS ? 1.8 : 1.0;
                $says[] = [$sentence.($aside > 0 ? '' : '_not'), (string) (int) round($figure * $degrees)];
            }
        }
        $spreads = array_column($prior->learned->unknowns, 1);
        sort($spreads);
        $middle = $spreads[intdiv(\count($spreads), 2)] ?? 1.0;

        return new self($prior, $says, (int) round(100 * (1.0 - $middle)));
    }
}
