<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/**
 * Meat that warms or cools from its surface: heat conducted in one direction, by finite volumes.
 *
 * The area of a heat flow grows as a power of the distance from the middle: 0 for a slab, 1 for a cylinder, 2 for a
 * ball. A block or a short cylinder lies between (a shape from its half thickness and its ratio of area to volume).
 * Steps follow the trapezoidal rule, slightly implicit so that it never rings. Properties and surface are those at the
 * step's beginning; the surface flow is linear in its temperature. The surface evaporates water as its wetness allows
 * (psychrometric relation with Lewis' number to the power 2/3 of 0.9). A drying surface lets less through.
 */
final class Body
{
    private const LATENT = 1616.0; // K: 0.622 · 2.35 MJ/kg ÷ (1005 J/(kg K) · 0.9)
    private const HEAT_OF_VAPOUR = 2.35e6; // J/kg
    private const IMPLICIT = 0.55;
    private const FOUND = 0.05; // °C of a step by Newton's method, the last that is worth it

    /** Water given off, kg/m² of surface. */
    public float $givenOff = 0.0;
    /** Heat taken in through the surface, J/m² of it. */
    public float $takenIn = 0.0;

    private float $width;
    /** °C of the evaporating surface, as last found. */
    private ?float $skin = null;
    /** @var list<float> 1/m: of the face outside each cell, relative to the surface's area, by two cells' width */
    private array $faces = [];
    /** @var list<float> of each cell, m, relative to the surface's area */
    private array $volumes = [];

    /**
     * @param float $half m from the middle to the surface
     * @param float $shape 0 slab, 1 cylinder, 2 ball, or between
     * @param list<float> $cells °C, from the middle outwards
     * @param float $pressure Pa of the air, which water boils against
     */
    public function __construct(
        private readonly MeatProperties $properties,
        public readonly float $half,
        public readonly float $shape,
        public array $cells,
        private readonly float $pressure = 101_325.0,
    ) {
        $count = \count($cells);
        $this->width = $half / $count;
        $power = $shape + 1.0;
        for ($cell = 0; $cell < $count; ++$cell) {
            $inner = $cell / $count;
            $outer = ($cell + 1) / $count;
            $this->faces[] = $outer ** $shape / (2.0 * $this->width);
            $this->volumes[] = ($half * ($outer ** $power - $inner ** $power)) / $power;
        }
    }

    /** All of it equally warm. */
    public static function even(
        MeatProperties $properties,
        float $half,
        float $shape,
        float $celsius,
        int $cells,
        float $pressure = 101_325.0,
    ): self {
        return new self($properties, $half, $shape, array_fill(0, $cells, $celsius), $pressure);
    }

    public function middle(): float
    {
        $cells = $this->cells;

        return isset($cells[1]) ? (9.0 * $cells[0] - $cells[1]) / 8.0 : $cells[0];
    }

    /** °C at a part of the way from the middle to the surface: between cells in a straight line. */
    public function at(float $part): float
    {
        $cells = $this->cells;
        $place = $part * \count($cells) - 0.5;
        if ($place <= 0.0) {
            return $this->middle() + (1.0 + 2.0 * $place) ** 2 * ($cells[0] - $this->middle());
        }
        $inner = min((int) $place, \count($cells) - 2);

        return $cells[$inner] + ($place - $inner) * ($cells[$inner + 1] - $cells[$inner]);
    }

    /** J/m² of surface, above 0 °C at the present capacities' integral. */
    public function heat(): float
    {
        $heat = 0.0;
        foreach ($this->cells as $cell => $celsius) {
            $heat += $this->volumes[$cell] * $this->enthalpy($celsius);
        }

        return $heat;
    }

    /**
     * @param float $seconds of one step
     * @param float|null $air °C, where it is other than the surface's for this step
     */
    public function step(float $seconds, Surface $surface, ?float $air = null): void
    {
        $cells = $this->cells;
        $last = \count($cells) - 1;
        $conducts = $this->properties->conductivity;
        $takes = $this->properties->capacity;
        $low = MeatProperties::COLDEST - 0.5;
        $top = MeatProperties::HOTTEST - MeatProperties::COLDEST;
        $faces = $this->faces;
        $volumes = $this->volumes;
        $theta = self::IMPLICIT;
        // Thomas' algorithm for the change of each cell, on the way out with the flow of each face.
        $ratio = $change = [];
        $before = 0.0; // W/m² into the cell from the inner one
        $inner = 0.0; // W/(m² K) through the inner face
        $aboveRatio = 0.0;
        $aboveChange = 0.0;
        $at = (int) ($cells[0] - $low);
        $degree = $at < 0 ? 0 : ($at > $top ? $top : $at);
        $k = $conducts[$degree];
        for ($cell = 0; $cell < $last; ++$cell) {
            $stored = ($volumes[$cell] * $takes[$degree]) / $seconds;
            $next = $cells[$cell + 1];
            $at = (int) ($next - $low);
            $degree = $at < 0 ? 0 : ($at > $top ? $top : $at);
            $outer = $faces[$cell] * ($k + $conducts[$degree]);
            $k = $conducts[$degree];
            $after = $outer * ($cells[$cell] - $next);
            $below = $theta * $inner;
            $pivot = $stored + $below + $theta * $outer - $below * $aboveRatio;
            $change[] = $aboveChange = ($before - $after + $below * $aboveChange) / $pivot;
            $ratio[] = $aboveRatio = ($theta * $outer) / $pivot;
            $before = $after;
            $inner = $outer;
        }
        [$flow, $slope, $evaporates] = $this->through($surface, $air ?? $surface->air, $cells[$last], $k);
        $below = $theta * $inner;
        $pivot = ($volumes[$last] * $takes[$degree]) / $seconds + $below - $theta * $slope - $below * $aboveRatio;
        $moved = ($before + $flow + $below * $aboveChange) / $pivot;
        $this->takenIn += $seconds * ($flow + $theta * $slope * $moved);
        $cells[$last] += $moved;
        for ($cell = $last - 1; $cell >= 0; --$cell) {
            $moved = $change[$cell] + $ratio[$cell] * $moved;
            $cells[$cell] += $moved;
        }
        $this->cells = array_values($cells);
        if ($evaporates > 0.0) {
            $this->givenOff += ($seconds * $evaporates) / self::HEAT_OF_VAPOUR;
        }
    }

    /**
     * @return array{float, float, float} W/m² into the outermost cell now, by how much that changes with a degree of
     *     it, and W/m² that go with vapour
     */
    private function through(Surface $surface, float $air, float $outermost, float $conducts): array
    {
        $inside = (2.0 * $conducts) / $this->width;
        $transfer = $surface->transfer;
        $evaporates = 0.0;
        $rises = 0.0;
        $skin = ($transfer * $air + $inside * $outermost) / ($transfer + $inside);
        $left = $surface->wetness <= 0.0
            ? 0.0
            : exp(-(($this->givenOff / $surface->drying) ** $surface->sharpness));
        $wetness = $left * $surface->wetness;
        $supply = $left * $surface->supply;
        if ($wetness > 0.0 && $surface->convection > 0.0) {
            $scale = ($surface->convection * self::LATENT * $wetness) / $this->pressure;
            // Newton's method, from where the skin was: three steps at the most find it to a hundredth of a degree.
            $skin = $this->skin ?? $skin;
            for ($step = 0; $step < 3; ++$step) {
                $pressure = self::saturation($skin);
                $evaporates = $scale * ($pressure - $surface->vapour);
                $rises = ($scale * $pressure * 4217.5) / (240.97 + $skin) ** 2;
                if ($evaporates < 0.0) {
                    // Steam that condenses on a cold surface warms it, as freely as the air brings it.
                    $evaporates /= $wetness;
                    $rises /= $wetness;
                } elseif ($surface->supply < \INF) {
                    $part = $supply / ($evaporates + $supply + 1e-9);
                    $evaporates *= $part;
                    $rises *= $part ** 2;
                }
                $off = $transfer * ($air - $skin) - $evaporates - $inside * ($skin - $outermost);
                $moved = $off / ($transfer + $rises + $inside);
                $skin += $moved;
                if (abs($moved) < self::FOUND) {
                    break;
                }
            }
            $this->skin = $skin;
        }
        $outside = $transfer + $rises;
        $flow = $inside * ($skin - $outermost);

        return [$flow, -($inside * $outside) / ($inside + $outside), $evaporates];
    }

    /** Pa over water; Magnus' formula as of Buck (1981), right to 0.3 % up to 100 °C. */
    public static function saturation(float $celsius): float
    {
        return 611.21 * exp((17.502 * $celsius) / (240.97 + $celsius));
    }

    private function enthalpy(float $celsius): float
    {
        $heat = 0.0;
        $takes = $this->properties->capacity;
        $low = MeatProperties::COLDEST;
        $degree = (int) floor($celsius);
        for ($t = 0; $t < $degree; ++$t) {
            $heat += ($takes[$t - $low] + $takes[$t + 1 - $low]) / 2;
        }
        $share = $celsius - $degree;

        [$here, $next] = [$takes[$degree - $low], $takes[$degree + 1 - $low]];

        return $heat + $share * ($here + ($share / 2) * ($next - $here));
    }
}
