<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Record\RecordedProduct;

/**
 * The chance that a layer of meat meets the cooling limits, by method, depth and cover, before it begins and without
 * readings. The same question has the same answer.
 */
final readonly class CoolingOdds
{
    public const ENOUGH = 0.9;
    /** cm: limit of the search for the deepest that passes. */
    public const DEPTHS = [1.0, 1.5, 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 7.5, 10.0];

    /** No freezer: heat from freezing at the surface is not modelled. */
    private const METHODS = [
        Holding::WalkIn,
        Holding::ShallowPans,
        Holding::BlastChiller,
        Holding::IceBath,
        Holding::Counter,
    ];

    /**
     * @param float $first 0 to 1: the middle is passed in time
     * @param float $all the cold is
     */
    private function __construct(public float $first, public float $all, public float $both)
    {
    }

    /** @return list<Holding> of which anything is known */
    public static function methods(): array
    {
        return self::METHODS;
    }

    /**
     * @param Holding $method one of methods()
     * @param float $depth m
     * @param float|null $around °C of the air or the water, if read; null for the usual
     * @param int|null $elevation m
     */
    public static function of(
        Holding $method,
        float $depth,
        bool $isCovered,
        ?float $around,
        CoolingLimits $gates,
        ?int $elevation = null,
    ): self {
        $meat = new RecordedProduct(null, Animal::None, Form::Cut, Integrity::Intact, null, 1);
        $belief = Beliefs::ahead($meat, $method, $gates->hot, $around, $depth, $isCovered, 0, $elevation);
        [[$first, $all], $both] = $belief->inTime([[$gates->middle, $gates->first], [$gates->cold, $gates->all]]);

        return new self($first, $all, $both);
    }

    /** @return float|null m: the deepest of DEPTHS that passes both gates nine times in ten; null where none does */
    public static function deepest(
        Holding $method,
        bool $isCovered,
        ?float $around,
        CoolingLimits $gates,
        ?int $elevation = null,
    ): ?float {
        $low = -1;
        $high = \count(self::DEPTHS);
        while ($high - $low > 1) {
            $middle = intdiv($low + $high, 2);
            $odds = self::of($method, self::DEPTHS[$middle] / 100, $isCovered, $around, $gates, $elevation);
            if ($odds->both >= self::ENOUGH) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $low < 0 ? null : self::DEPTHS[$low] / 100;
    }
}
