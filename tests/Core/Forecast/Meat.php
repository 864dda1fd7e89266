<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

/**
 * Meat by the physics, independent of the forecasts: an explicit finite-difference slab, cylinder or sphere of
 * half-thickness R, heat exchanged with its surroundings at the surface, where a wet surface also evaporates. Gives the
 * core's temperature.
 */
final class Meat
{
    public const SLAB = 0;
    public const CYLINDER = 1;
    public const SPHERE = 2;

    private const CELLS = 14;
    private const DIFFUSIVITY = 1.4e-7; // m²/s
    private const CONDUCTIVITY = 0.48; // W/(m K)
    private const LEWIS = 0.0165; // K/Pa: what evaporation takes for each pascal, against convection

    public float $seconds = 0.0;

    /** @var list<float> from the core to the surface */
    private array $cells;

    private readonly float $cell;

    /** @param float $wetness share of the surface that evaporates, 0 dry or wrapped */
    public function __construct(
        private readonly int $shape,
        private readonly float $radius,
        float $celsius,
        public float $wetness = 0.0,
    ) {
        $this->cells = array_fill(0, self::CELLS, $celsius);
        $this->cell = $this->radius / self::CELLS;
    }

    public function core(): float
    {
        return $this->cells[0];
    }

    /**
     * @param float $transfer W/(m² K)
     * @param float $drying seconds in which the wet share falls to a third; 0 never
     */
    public function stay(float $seconds, float $surroundings, float $transfer, float $drying = 0.0): void
    {
        $most = (0.3 * $this->cell ** 2) / self::DIFFUSIVITY / ($this->shape + 1);
        $biot = ($transfer * $this->cell) / self::CONDUCTIVITY;
        $steps = (int) max(1, ceil($seconds / ($most / max(1.0, $biot))));
        $step = $seconds / $steps;
        for ($i = 0; $i < $steps; ++$i) {
            $this->step($step, $surroundings, $transfer);
            if ($drying > 0) {
                $this->wetness *= exp(-$step / $drying);
            }
        }
        $this->seconds += $seconds;
    }

    private function step(float $step, float $surroundings, float $transfer): void
    {
        $last = self::CELLS - 1;
        $surface = $this->cells[$last];
        $evaporation = $this->wetness * self::LEWIS * max(0.0, self::saturation($surface) - 1500.0);
        $flux = $transfer * ($surroundings - $surface - $evaporation);
        $next = [];
        for ($i = 0; $i <= $last; ++$i) {
            $inner = $i * $this->cell;
            $outer = $inner + $this->cell;
            $in = $i === 0 ? 0.0 : (($this->cells[$i - 1] - $this->cells[$i]) / $this->cell) * $inner ** $this->shape;
            $out =
                $i === $last
                    ? ($flux / self::CONDUCTIVITY) * $outer ** $this->shape
                    : (($this->cells[$i + 1] - $this->cells[$i]) / $this->cell) * $outer ** $this->shape;
            $volume = ($outer ** ($this->shape + 1) - $inner ** ($this->shape + 1)) / ($this->shape + 1);
            $next[] = $this->cells[$i] + (self::DIFFUSIVITY * $step * ($in + $out)) / $volume;
        }
        $this->cells = $next;
    }

    /** Pa, by Magnus. */
    private static function saturation(float $celsius): float
    {
        return 610.94 * exp((17.625 * $celsius) / ($celsius + 243.04));
    }
}
