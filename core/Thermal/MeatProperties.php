<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/**
 * Conductivity and heat capacity of meat by composition and temperature, tabulated a degree apart.
 *
 * Components by Choi and Okos, "Effects of temperature and composition on the thermal properties of foods" (1986),
 * valid from -40 to 150 °C: conductivities in parallel by volume, heat by mass. Proteins change between 45 and 85 °C,
 * which takes about 17 kJ per kilogram of protein, spread as a bell around 65 °C. Below 0 °C the water is taken as
 * liquid: thawing is not modelled.
 */
final class MeatProperties
{
    public const COLDEST = -30;
    public const HOTTEST = 160;

    private const CHANGE_J = 17_000.0;
    private const CHANGE_AT = 65.0;
    private const CHANGE_WIDTH = 8.0;

    /** @var array<string, self> */
    private static array $made = [];

    /**
     * @param list<float> $conductivity W/(m K), by degree from COLDEST
     * @param list<float> $capacity J/(m³ K)
     */
    private function __construct(public readonly array $conductivity, public readonly array $capacity)
    {
    }

    public static function of(Composition $of): self
    {
        $key = "$of->water $of->protein $of->fat $of->ash";

        return self::$made[$key] ??= self::tabulated($of);
    }

    /** The same at every temperature, to be compared with solutions in series. */
    public static function constant(float $conductivity, float $capacity): self
    {
        $count = self::HOTTEST - self::COLDEST + 1;

        return new self(array_fill(0, $count, $conductivity), array_fill(0, $count, $capacity));
    }

    private static function tabulated(Composition $of): self
    {
        $conductivity = $capacity = [];
        for ($t = self::COLDEST; $t <= self::HOTTEST; ++$t) {
            $parts = [
                [
                    $of->water,
                    0.57109 + 1.7625e-3 * $t - 6.7036e-6 * $t ** 2,
                    997.18 + 3.1439e-3 * $t - 3.7574e-3 * $t ** 2,
                    4176.2 - 9.0864e-2 * $t + 5.4731e-3 * $t ** 2,
                ],
                [
                    $of->protein,
                    0.17881 + 1.1958e-3 * $t - 2.7178e-6 * $t ** 2,
                    1329.9 - 0.51840 * $t,
                    2008.2 + 1.2089 * $t - 1.3129e-3 * $t ** 2,
                ],
                [
                    $of->fat,
                    0.18071 - 2.7604e-4 * $t - 1.7749e-7 * $t ** 2,
                    925.59 - 0.41757 * $t,
                    1984.2 + 1.4733 * $t - 4.8008e-3 * $t ** 2,
                ],
                [
                    $of->ash,
                    0.32962 + 1.4011e-3 * $t - 2.9069e-6 * $t ** 2,
                    2423.8 - 0.28063 * $t,
                    1092.6 + 1.8896 * $t - 3.6817e-3 * $t ** 2,
                ],
            ];
            $volume = $k = $heat = 0.0;
            foreach ($parts as [$mass, $conducts, $density, $takes]) {
                $volume += $mass / $density;
                $k += ($conducts * $mass) / $density;
                $heat += $mass * $takes;
            }
            $heat +=
                (($of->protein * self::CHANGE_J) / (self::CHANGE_WIDTH * sqrt(2 * \M_PI)))
                * exp(-0.5 * (($t - self::CHANGE_AT) / self::CHANGE_WIDTH) ** 2);
            $conductivity[] = $k / $volume;
            $capacity[] = $heat / $volume;
        }

        return new self($conductivity, $capacity);
    }
}
