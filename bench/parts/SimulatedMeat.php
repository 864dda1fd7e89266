<?php

declare(strict_types=1);

namespace Verjuicer\Bench;

/**
 * Meat by other numerics than `core/Thermal`: explicit finite volumes in two dimensions, a quarter of a long piece's
 * cross-section or of a round one's length. The shapes, correlations and flaws are of its own, so that forecasts are
 * not measured against themselves: conductivity by water content (Sweat), heat by Siebel with a change of the protein
 * between 55 and 80 °C, vapour pressure by Antoine, a skin that is fed with water from below and dries in patches.
 */
final class SimulatedMeat
{
    private const VAPOUR_HEAT = 2.3e6; // J/kg
    private const DENSITY = 1060.0;
    private const DRIES = 5.0; // kg/m²

    /** Whether it dries by another law: as freely, and less by and by, until so much is gone. */
    public static bool $isSteady = false;

    /** @var list<list<float>> °C, by distance from the middle in both directions */
    public array $cells;
    /** @var list<float> kg/m² of free water at each patch of the surface: the outer faces of y, then of x */
    private array $water;
    /** @var list<float> kg/m² that each gave off */
    private array $gone;
    /** @var list<float> kg/m² that may still creep up to each */
    private array $reserve;
    private float $dx;
    private float $dy;
    private int $nx;
    private int $ny;
    private float $conducts;
    private float $takes;
    /** @var list<float> area of the face outside column i, over that of a slab */
    private array $face = [];
    /** @var list<float> */
    private array $volume = [];

    /**
     * @param float $a m, half the thickness
     * @param float $b m, half the other extent
     * @param bool $isRound whether x is the radius of something round and y half its length
     * @param float $moisture part of mass
     * @param float $skinWater kg/m² free at the surface
     * @param float $feeds how well water follows from below, 0 to 2
     * @param float $reserveAtFirst kg/m² that may follow
     */
    public function __construct(
        public readonly float $a,
        public readonly float $b,
        public readonly bool $isRound,
        float $celsius,
        private readonly float $moisture,
        private float $skinWater,
        private readonly float $feeds,
        private readonly float $reserveAtFirst,
    ) {
        $this->nx = (int) max(5, min(9, round($a / 0.0045)));
        $this->ny = (int) max(5, min(10, round($b / 0.006)));
        $this->dx = $a / $this->nx;
        $this->dy = $b / $this->ny;
        $this->cells = array_fill(0, $this->nx, array_fill(0, $this->ny, $celsius));
        $this->water = array_fill(0, $this->nx + $this->ny, $skinWater);
        $this->gone = array_fill(0, $this->nx + $this->ny, 0.0);
        $this->reserve = array_fill(0, $this->nx + $this->ny, $reserveAtFirst);
        $this->conducts = 0.08 + 0.52 * $moisture;
        $this->takes = self::DENSITY * (837.0 + 3349.0 * $moisture) * 0.985;
        for ($i = 0; $i < $this->nx; ++$i) {
            $this->face[] = $isRound ? ($i + 1) / $this->nx : 1.0;
            $this->volume[] = $isRound ? (($i + 1) ** 2 - $i ** 2) / (2 * $this->nx) : 1.0;
        }
    }

    public function centre(): float
    {
        return $this->cells[0][0];
    }

    /** Where a probe sits that missed the middle by parts of the half extents. */
    public function at(float $x, float $y): float
    {
        return $this->cells[min($this->nx - 1, (int) ($x * $this->nx))][min($this->ny - 1, (int) ($y * $this->ny))];
    }

    public function mean(): float
    {
        $sum = $all = 0.0;
        foreach ($this->cells as $i => $row) {
            $sum += $this->volume[$i] * array_sum($row);
            $all += $this->volume[$i] * \count($row);
        }

        return $sum / $all;
    }

    /**
     * @param float $transfer W/(m² K) at the outer face of x, convection and radiation
     * @param float $below the share of it at the outer face of y (a pan's floor, a grate)
     * @param float $vapour Pa in the air
     * @param float $open how much of the vapour gets away, 0 to 1
     *
     * @return float J given to the air, for each m of length or, if round, each radian of half
     */
    public function stay(float $seconds, float $air, float $transfer, float $below, float $vapour, float $open): float
    {
        $alpha = $this->conducts / $this->takes;
        $most = 0.42 / ($alpha * (1 / $this->dx ** 2 + 1 / $this->dy ** 2) * ($this->isRound ? 1.3 : 1.0));
        $steps = (int) max(1, ceil($seconds / $most));
        $given = 0.0;
        for ($n = 0; $n < $steps; ++$n) {
            $given += $this->step($seconds / $steps, $air, $transfer, $below, $vapour, $open);
        }

        return $given;
    }

    private function step(float $dt, float $air, float $transfer, float $below, float $vapour, float $open): float
    {
        $nx = $this->nx;
        $ny = $this->ny;
        $cells = $this->cells;
        $next = [];
        $given = 0.0;
        $gx = $this->conducts / $this->dx ** 2;
        $gy = $this->conducts / $this->dy ** 2;
        foreach ($cells as $i => $row) {
            $inner = $i === 0 ? 0.0 : $this->face[$i - 1] / $this->volume[$i];
            $outer = $this->face[$i] / $this->volume[$i];
            $new = [];
            for ($j = 0; $j < $ny; ++$j) {
                $t = $row[$j];
                $q = 0.0;
                if ($i > 0) {
                    $q += $gx * $inner * ($cells[$i - 1][$j] - $t);
                }
                if ($i < $nx - 1) {
                    $q += $gx * $outer * ($cells[$i + 1][$j] - $t);
                } else {
                    $flux = $this->flux($nx + $j, $t, $this->dx, $dt, $air, $transfer, $vapour, $open);
                    $q += ($flux / $this->dx) * $outer;
                    $given -= $flux * $this->dy * $dt;
                }
                if ($j > 0) {
                    $q += $gy * ($row[$j - 1] - $t);
                }
                if ($j < $ny - 1) {
                    $q += $gy * ($row[$j + 1] - $t);
                } else {
                    $flux = $this->flux($i, $t, $this->dy, $dt, $air, $transfer * $below, $vapour, $open);
                    $q += $flux / $this->dy;
                    $given -= $flux * $this->dx * $this->volume[$i] * $dt;
                }
                $takes = $this->takes;
                if ($t > 55.0 && $t < 80.0) {
                    $takes *= 1.0 + 0.14 * (1.0 - abs($t - 67.5) / 12.5);
                }
                $new[] = $t + ($q * $dt) / $takes;
            }
            $next[] = $new;
        }
        $this->cells = $next;

        return $given;
    }

    /** W/m² into the meat at a patch of its surface. */
    private function flux(
        int $patch,
        float $cell,
        float $width,
        float $dt,
        float $air,
        float $transfer,
        float $vapour,
        float $open,
    ): float {
        $inside = (2 * $this->conducts) / $width;
        $film = $this->water[$patch];
        $skin = ($inside * $cell + $transfer * $air) / ($inside + $transfer);
        $evaporation = 0.0;
        if ($open > 0.0 && $transfer > 0.0) {
            // 0.62 of an oven's heat by moving air; what is left of the film gives vapour off less freely.
            $mass = ((0.62 * $transfer) / 1150.0) * (0.622 / 101_325.0) * $open;
            $active = self::$isSteady
                ? 0.25 * max(0.0, 1.0 - $this->gone[$patch] / self::DRIES)
                : $film / ($film + 0.25 * $this->skinWater + 0.02);
            for ($n = 0; $n < 4; ++$n) {
                $gets = 133.322 * 10 ** (8.07131 - 1730.63 / (233.426 + $skin));
                // Steam condenses on what is colder than its dew point, dry or not.
                $share = $gets > $vapour ? $active : 1.0;
                $evaporation = $mass * $share * ($gets - $vapour);
                $slope = ($mass * $share * $gets * 3984.7) / (233.426 + $skin) ** 2;
                $balance = $inside * ($cell - $skin) + $transfer * ($air - $skin) - self::VAPOUR_HEAT * $evaporation;
                $skin += $balance / ($inside + $transfer + self::VAPOUR_HEAT * $slope);
            }
        }
        // Juice that shrinking protein presses out feeds the film; so does what creeps up from below.
        $pressed = $cell > 58.0 ? 6e-6 * min(1.0, ($cell - 58.0) / 15.0) * exp(-max(0.0, $cell - 85.0) / 15.0) : 0.0;
        $left = $this->reserve[$patch] / $this->reserveAtFirst;
        $creeps = 4.5e-4 * $left * $this->moisture * max(0.0, 1.0 - $film / $this->skinWater);
        $this->reserve[$patch] -= $dt * $this->feeds * $creeps;
        $fed = $this->feeds * ($pressed + $creeps);
        $this->water[$patch] = max(0.0, $film + $dt * ($fed - max(0.0, $evaporation)));

        $this->gone[$patch] += $dt * max(0.0, $evaporation);

        return $inside * ($skin - $cell);
    }
}
