<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

/**
 * Estimates how cold air goes on from its readings: a set temperature, a fading rise after a warm load, and drift from
 * doors and fans. A Kalman filter over these three.
 */
final readonly class ColdAir
{
    private const WANDERS = 0.6; // °C
    private const WANDERS_FOR = 3000.0; // seconds
    private const NOISE = 0.4; // °C, of a reading
    private const KEEPS = 0.8; // share of the prior spread between rooms whose air is read

    /**
     * @param int $at seconds since 1970, of the last reading
     * @param float $spread °C, one standard deviation of the set temperature
     * @param float $raised °C more that a load makes of it now
     * @param float $wanders °C more that is by chance
     * @param float $fades seconds in which the rise after a load fades
     */
    private function __construct(
        private int $at,
        private float $spread,
        private float $raised,
        private float $wanders,
        private float $fades,
    ) {
    }

    /** @return self|null null if the place is not cold or its air was never read */
    public static function of(Leg $leg): ?self
    {
        $around = $leg->holding?->isCold() === true ? Surroundings::of($leg->holding) : null;
        if ($around === null) {
            return null;
        }
        [$coldest, $warmest] = $around->celsius;
        [$least, $most, $fades] = $around->excess;
        $is = [($coldest + $warmest) / 2, ($least + $most) / 2, 0.0];
        $may = [
            [(self::KEEPS * ($warmest - $coldest)) ** 2 / 12, 0.0, 0.0],
            [0.0, ($most - $least) ** 2 / 12, 0.0],
            [0.0, 0.0, self::WANDERS ** 2],
        ];
        $before = $leg->from;
        $last = null;
        foreach ($leg->air as [$at, $read]) {
            if ($at >= CookRoute::ALWAYS) {
                break;
            }
            $goes = max(0, $at - $before);
            $lasts = [1.0, exp(-$goes / $fades), exp(-$goes / self::WANDERS_FOR)];
            $before = $last = $at;
            foreach ($lasts as $row => $part) {
                $is[$row] *= $part;
                foreach ($lasts as $column => $other) {
                    $may[$row][$column] *= $part * $other;
                }
            }
            $may[2][2] += (1.0 - $lasts[2] ** 2) * self::WANDERS ** 2;
            $with = array_map(array_sum(...), $may);
            $all = array_sum($with) + self::NOISE ** 2;
            $off = $read - array_sum($is);
            foreach ($with as $row => $by) {
                $is[$row] += ($by / $all) * $off;
                foreach ($with as $column => $other) {
                    $may[$row][$column] -= ($by * $other) / $all;
                }
            }
        }

        return $last === null ? null : new self($last, sqrt(max(0.0, $may[0][0])), $is[1], $is[2], $fades);
    }

    /**
     * °C by which it is warmer than it was read last.
     *
     * @param float $number a standard normal number: deviation of the set temperature from its likely value
     */
    public function since(int $at, float $number): float
    {
        $ago = $at - $this->at;
        if ($ago <= 0) {
            return 0.0;
        }
        $raised = $this->raised - $this->spread * $number;

        return $raised * (exp(-$ago / $this->fades) - 1.0)
            + $this->wanders * (exp(-$ago / self::WANDERS_FOR) - 1.0);
    }
}
