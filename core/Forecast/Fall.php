<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\Instant;

/**
 * How meat off the heat is likely to fall, as a fan between a fastest and a slowest course, each by Newton's law of
 * cooling: every hour it covers the same part of what it is still above its surroundings. A forecast; it never clears
 * food.
 */
final readonly class Fall
{
    /**
     * By how much of the way it has still to go: what share of today's pace the rest keeps at most. At least it keeps
     * nearly all of it.
     */
    private const SHARES = [[0.93, 6.5], [0.8, 2.6], [0.6, 1.55], [0.0, 1.2]];
    private const LEAST_SHARE = 0.97;
    private const RECENT_SECONDS = 4500;
    private const LEAST_SECONDS = 900;
    private const ERRORS = 1.6; // standard errors of the slope, to either side
    private const LEAST_FALL = 0.8; // °C: less is noise

    /**
     * @param float $fastest 1/h, towards the coldest surroundings
     * @param float $slowest 1/h, towards the warmest
     */
    private function __construct(
        public Instant $from,
        public float $celsius,
        private float $coldest,
        private float $warmest,
        private float $fastest,
        private float $slowest,
        public bool $isFromReadings,
    ) {
    }

    /**
     * From the readings of one track since it left the heat, once they fall; before that, from the place and the size.
     *
     * @param list<Point> $points in order of time, the first the hottest it may have been
     *
     * @return self|null null where nothing was read, or neither the readings nor the place say anything
     */
    public static function of(array $points, Surroundings $surroundings, ?Size $size): ?self
    {
        $last = $points[\count($points) - 1] ?? null;
        [$coldest, $warmest] = $surroundings->celsius;
        if ($last === null || $last->celsius <= $coldest) {
            return null;
        }
        $warmest = min($warmest, $last->celsius);

        return self::byReadings($points, $last, $coldest, $warmest)
            ?? ($size === null ? null : self::byPlace($last, $surroundings, $size, $coldest, $warmest));
    }

    /** Before anything was read: what such a rest or cooling does to such a piece that begins at a temperature. */
    public static function ahead(Instant $from, float $celsius, Surroundings $surroundings, Size $size): self
    {
        return self::byPlace(Point::at($from->epoch, $celsius), $surroundings, $size, ...$surroundings->celsius);
    }

    /** When it may pass a temperature on its way down; null where even its fastest course never does. */
    public function crossing(float $celsius): ?Crossing
    {
        if ($celsius >= $this->celsius) {
            return new Crossing($this->from, $this->from);
        }
        $earliest = self::hours($this->celsius, $celsius, $this->coldest, $this->fastest);
        if ($earliest === null) {
            return null;
        }
        $latest = self::hours($this->celsius, $celsius, $this->warmest, $this->slowest);

        return new Crossing($this->after($earliest), $latest === null || $latest > 240 ? null : $this->after($latest));
    }

    /** @return array{float, float} °C, the coldest and the warmest it may be at a later moment */
    public function at(Instant $instant): array
    {
        $hours = max(0, $instant->epoch - $this->from->epoch) / 3600;

        return [
            $this->coldest + ($this->celsius - $this->coldest) * exp(-$this->fastest * $hours),
            $this->warmest + ($this->celsius - $this->warmest) * exp(-$this->slowest * $hours),
        ];
    }

    /** @param list<Point> $points */
    private static function byReadings(array $points, Point $last, float $coldest, float $warmest): ?self
    {
        $falling = self::sinceItsPeak($points);
        $recent = array_values(
            array_filter($falling, static fn (Point $point): bool => $last->at - $point->at <= self::RECENT_SECONDS),
        );
        if (\count($recent) < 2) {
            $recent = \array_slice($falling, -2);
        }
        $line = Line::through($recent);
        if (
            $line === null
            || $last->at - $recent[0]->at < self::LEAST_SECONDS
            || $recent[0]->celsius - $last->celsius < self::LEAST_FALL
        ) {
            return null;
        }
        $middle = ($recent[0]->celsius + $last->celsius) / 2;
        $greatest = -$line->slope + self::ERRORS * $line->slopeError;
        $least = max(0.05, -$line->slope - self::ERRORS * $line->slopeError);
        $share = self::SHARES[0][1];
        $left =
            $falling[0]->celsius > $warmest
                ? ($last->celsius - $warmest) / max(0.1, $falling[0]->celsius - $warmest)
                : 0.0;
        foreach (self::SHARES as [$from, $of]) {
            if ($left >= $from) {
                $share = $of;
                break;
            }
        }

        return new self(
            Instant::ofEpoch($last->at),
            $last->celsius,
            $coldest,
            $warmest,
            ($greatest / max(1.0, $middle - $coldest)) * $share,
            ($least / max(1.0, $middle - $warmest)) * self::LEAST_SHARE,
            true,
        );
    }

    private static function byPlace(
        Point $last,
        Surroundings $surroundings,
        Size $size,
        float $coldest,
        float $warmest,
    ): self {
        [$slowest, $fastest] = $size->rates($surroundings);

        // The middle begins to follow late: at its slowest as if it had begun up to a third higher above its
        // surroundings.
        return new self(
            Instant::ofEpoch($last->at),
            $last->celsius,
            $coldest,
            $warmest,
            $fastest,
            $slowest * 0.75,
            false,
        );
    }

    /**
     * @param list<Point> $points
     *
     * @return non-empty-list<Point>
     */
    private static function sinceItsPeak(array $points): array
    {
        $peak = 0;
        foreach ($points as $index => $point) {
            if ($point->celsius >= $points[$peak]->celsius) {
                $peak = $index;
            }
        }
        $since = \array_slice($points, $peak);
        \assert($since !== [], 'a peak is one of the points');

        return $since;
    }

    /** Hours from one temperature to another; null where the surroundings are as warm. */
    private static function hours(float $from, float $to, float $surroundings, float $rate): ?float
    {
        return $to - $surroundings <= 0.05 || $rate <= 0
            ? null
            : log(($from - $surroundings) / ($to - $surroundings)) / $rate;
    }

    private function after(float $hours): Instant
    {
        return Instant::ofEpoch($this->from->epoch + (int) round(3600 * $hours));
    }
}
