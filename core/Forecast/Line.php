<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/**
 * A straight line through points by least squares: where it is at a moment, how fast it climbs, and how sure that is.
 */
final readonly class Line
{
    /** @param float $slope °C an hour, @param float $slopeError its standard error */
    private function __construct(
        public float $slope,
        public float $slopeError,
        private float $middle,
        private float $level,
    ) {
    }

    /** @param list<Point> $points at two moments at least; else null */
    public static function through(array $points): ?self
    {
        $count = \count($points);
        if ($count < 2) {
            return null;
        }
        $origin = $points[0]->at;
        $hours = array_map(static fn (Point $point): float => ($point->at - $origin) / 3600, $points);
        $middle = array_sum($hours) / $count;
        $level = array_sum(array_map(static fn (Point $point): float => $point->celsius, $points)) / $count;
        $spread = $lean = 0.0;
        foreach ($points as $index => $point) {
            $spread += ($hours[$index] - $middle) ** 2;
            $lean += ($hours[$index] - $middle) * ($point->celsius - $level);
        }
        if ($spread <= 0.0) {
            return null;
        }
        $slope = $lean / $spread;
        $rest = 0.0;
        foreach ($points as $index => $point) {
            $rest += ($point->celsius - $level - $slope * ($hours[$index] - $middle)) ** 2;
        }
        // A thermometer is believed to half a degree at best, so that two points do not seem to be without error.
        $noise = max(0.3 ** 2, $count > 2 ? $rest / ($count - 2) : 0.5 ** 2);

        return new self($slope, sqrt($noise / $spread), $origin + 3600 * $middle, $level);
    }

    public function at(int $at): float
    {
        return $this->level + ($this->slope * ($at - $this->middle)) / 3600;
    }
}
