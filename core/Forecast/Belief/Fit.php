<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Thermal\MeatProperties;

/**
 * The course that fits readings best, and how far others may be from it: the maximum of the posterior by Gauss and
 * Newton, and Laplace's approximation about it. Derivatives are differences: each course is a few hundred steps.
 */
final readonly class Fit
{
    private const MOST_POINTS = 28;
    private const ROUNDS = 3;
    private const LEAST_GAIN = 0.3;
    private const NUDGE = 0.25;
    private const FARTHEST = 3.2;
    private const MOST = 4.0; // a normal number beyond it is taken as it
    private const NOISE = 0.5; // °C, of a reading
    private const ERROR = 1.0; // °C, of the model, now
    private const OLDER = 0.7; // °C more for each hour ago
    private const BEFORE = 4.0; // °C more for one on the heat, once it has left it
    private const MOST_ERROR = 5.0; // °C
    private const LASTS = 7200.0; // seconds

    /**
     * @param list<array{int, float}> $points
     * @param list<int> $matters the unknowns that the readings may say something of
     * @param array<int, array<int, float>> $errors the root of their covariance, K
     * @param array<int, float> $z of the best
     * @param array<int, array<int, float>> $root of the information about the unknowns
     */
    private function __construct(
        private CookRoute $way,
        private Prior $prior,
        private array $points,
        private MeatProperties $properties,
        private float $pressure,
        private int $asOf,
        private ?float $warm,
        private array $matters,
        private array $errors,
        private array $z,
        private array $root,
    ) {
    }

    /**
     * @param non-empty-list<array{int, float}> $points moments and °C of one track
     * @param float|null $warm °C it began with; null out of the cold
     */
    public static function of(
        CookRoute $way,
        Prior $prior,
        array $points,
        MeatProperties $properties,
        float $pressure,
        int $asOf,
        ?float $warm,
    ): self {
        $points = self::thinned($points);
        $errors = Matrix::root(self::errors($points, $way->leftHeat()));
        $matters = self::matters($way);
        $z = array_fill(0, ParameterSample::UNKNOWNS, 0.0);
        $fit = new self($way, $prior, $points, $properties, $pressure, $asOf, $warm, $matters, $errors, $z, []);

        return $fit->improved();
    }

    /**
     * One of the courses about the best.
     *
     * @param list<float> $normal independent normal numbers, as many as there are unknowns
     *
     * @return array{ParameterSample, float, float, Trajectory} with the logarithm of its likelihood against that of
     *     having been drawn, the error that lasts at the last reading, °C, and the course that far
     */
    public function draw(array $normal): array
    {
        $z = $normal;
        $by = [];
        foreach ($this->matters as $unknown) {
            $by[] = $normal[$unknown];
        }
        $log = 0.0;
        foreach (Matrix::backward($this->root, $by) as $i => $moved) {
            $unknown = $this->matters[$i];
            $z[$unknown] = max(-self::MOST, min(self::MOST, $this->z[$unknown] + $moved));
            $log += $normal[$unknown] ** 2 - $z[$unknown] ** 2;
        }
        $draw = new ParameterSample($z, $this->prior);
        $course = $this->course($draw);
        $shown = $course->read(array_column($this->points, 0));

        return [$draw, ($log - self::square($this->off($shown))) / 2, $this->lasting($shown), $course];
    }

    /**
     * Likely values that hold for other pieces of the batch too, and the share the readings determine.
     *
     * @return array<int, array{float, float}> normal numbers, and parts from 0 to 1, by unknown
     */
    public function ofAllPieces(): array
    {
        $ofPlaces = [
            ParameterSample::LEAK,
            ParameterSample::REST_AIR,
            ParameterSample::REST_TRANSFER,
            ParameterSample::EXCESS,
        ];
        $shared = [...ParameterSample::ON_THE_HEAT, ...$ofPlaces, ParameterSample::HALF, ParameterSample::SHAPE];

        $likely = [];
        foreach (array_intersect_key($this->says(), array_flip($shared)) as $unknown => [$number, $said]) {
            $likely[$unknown] = [$this->prior->plain($unknown, $number), $said];
        }

        return $likely;
    }

    /**
     * The likeliest of each unknown, and how much of it the readings say: all but the part of its variance that they
     * leave.
     *
     * @return array<int, array{float, float}> normal numbers, and parts from 0 to 1, by unknown
     */
    public function says(): array
    {
        $says = [];
        foreach ($this->matters as $i => $unknown) {
            $one = array_fill(0, \count($this->matters), 0.0);
            $one[$i] = 1.0;
            $left = self::square(Matrix::forward($this->root, $one));
            $says[$unknown] = [round($this->z[$unknown], 4), round(max(0.0, 1.0 - $left), 4)];
        }

        return $says;
    }

    /** Mean square of the residuals of the best fit, in their expected sizes: about 1 for a good fit. */
    public function misfit(): float
    {
        return self::square($this->off($this->shown($this->z))) / \count($this->points);
    }

    private function improved(): self
    {
        $z = $this->z;
        $shown = $this->shown($z);
        $cost = $this->cost($z, $shown);
        $root = [];
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            [$root, $step] = $this->step($z, $shown);
            $gain = 0.0;
            foreach ([1.0, 0.4, 0.12] as $part) {
                $tried = $z;
                foreach ($this->matters as $i => $unknown) {
                    $tried[$unknown] = max(-self::FARTHEST, min(self::FARTHEST, $z[$unknown] + $part * $step[$i]));
                }
                $then = $this->shown($tried);
                $gain = $cost - $this->cost($tried, $then);
                if ($gain > 0.0) {
                    [$z, $shown, $cost] = [$tried, $then, $cost - $gain];

                    break;
                }
            }
            if ($gain < self::LEAST_GAIN) {
                break;
            }
        }

        return new self(
            $this->way,
            $this->prior,
            $this->points,
            $this->properties,
            $this->pressure,
            $this->asOf,
            $this->warm,
            $this->matters,
            $this->errors,
            $z,
            $root,
        );
    }

    /**
     * @param array<int, float> $z
     * @param list<float> $shown
     *
     * @return array{array<int, array<int, float>>, array<int, float>} the root of the information here, and Newton's
     *     step
     */
    private function step(array $z, array $shown): array
    {
        $rows = [];
        foreach ($this->matters as $unknown) {
            $nudged = $z;
            $nudge = $z[$unknown] > 0 ? -self::NUDGE : self::NUDGE;
            $nudged[$unknown] += $nudge;
            $slopes = [];
            foreach ($this->shown($nudged) as $n => $celsius) {
                $slopes[] = ($celsius - $shown[$n]) / $nudge;
            }
            $rows[] = Matrix::forward($this->errors, $slopes);
        }
        $off = $this->off($shown);
        $known = $right = [];
        foreach ($rows as $i => $row) {
            for ($j = 0; $j <= $i; ++$j) {
                $known[$i][$j] = self::product($row, $rows[$j]) + ($i === $j ? 1.0 : 0.0);
            }
            $right[] = self::product($row, $off) - $z[$this->matters[$i]];
        }
        $root = Matrix::root($known);

        return [$root, Matrix::backward($root, Matrix::forward($root, $right))];
    }

    /**
     * @param array<int, float> $z
     *
     * @return list<float> °C at each reading
     */
    private function shown(array $z): array
    {
        return $this->course(new ParameterSample($z, $this->prior))->read(array_column($this->points, 0));
    }

    private function course(ParameterSample $draw): Trajectory
    {
        return new Trajectory($draw, $this->way, $this->properties, $this->pressure, $this->warm, $this->asOf);
    }

    /**
     * @param list<float> $shown
     *
     * @return array<int, float> by how much the readings differ, in parts that are independent and of size 1
     */
    private function off(array $shown): array
    {
        $off = [];
        foreach ($this->points as $n => [, $read]) {
            $off[] = $read - $shown[$n];
        }

        return Matrix::forward($this->errors, $off);
    }

    /**
     * @param array<int, float> $z
     * @param list<float> $shown
     */
    private function cost(array $z, array $shown): float
    {
        return self::square($this->off($shown)) + self::square($z);
    }

    /** @return list<int> */
    private static function matters(CookRoute $way): array
    {
        $matters = [
            ParameterSample::HALF => true,
            ParameterSample::SHAPE => true,
            ParameterSample::START => true,
            ParameterSample::OFF_CENTRE => true,
        ];
        foreach ($way->legs as $leg) {
            if ($leg->holding !== null) {
                $matters += [
                    ParameterSample::REST_AIR => true,
                    ParameterSample::REST_TRANSFER => true,
                    ParameterSample::EXCESS => true,
                ]
                    + [ParameterSample::REST_WETNESS => true];
            } else {
                $matters += array_fill_keys(ParameterSample::ON_THE_HEAT, true);
            }
            $matters += $leg->depth === null ? [] : [ParameterSample::BELOW => true];
            $matters += $leg->wrap === null ? [] : [ParameterSample::LEAK => true];
        }

        return array_keys($matters);
    }

    private static function sigma(int $ago): float
    {
        return min(self::MOST_ERROR, self::ERROR + (self::OLDER * $ago) / 3600);
    }

    /**
     * @param non-empty-list<array{int, float}> $points
     * @param int|null $leftHeat from when on it was off the heat
     *
     * @return array<int, array<int, float>> lower triangle, K²
     */
    private static function errors(array $points, ?int $leftHeat): array
    {
        $errors = $sigmas = [];
        $last = $points[\count($points) - 1][0];
        foreach ($points as [$at]) {
            // A reading from the heat counts less off the heat.
            $sigmas[] = self::sigma($last - $at) + ($at < ($leftHeat ?? 0) ? self::BEFORE : 0.0);
        }
        foreach ($points as $row => [$at]) {
            for ($column = 0; $column <= $row; ++$column) {
                $errors[$row][$column] =
                    $sigmas[$row] * $sigmas[$column] * exp(-abs($at - $points[$column][0]) / self::LASTS)
                    + ($row === $column ? self::NOISE ** 2 : 0.0);
            }
        }

        return $errors;
    }

    /**
     * The error that lasts, at the last reading: Kalman's filter.
     *
     * @param list<float> $shown
     */
    private function lasting(array $shown): float
    {
        $before = null;
        $error = 0.0;
        $variance = self::ERROR ** 2;
        foreach ($this->points as $index => [$at, $read]) {
            if ($before !== null) {
                $kept = exp(-($at - $before) / self::LASTS);
                $error *= $kept;
                $variance = $kept ** 2 * $variance + (1.0 - $kept ** 2) * self::ERROR ** 2;
            }
            $gain = $variance / ($variance + self::NOISE ** 2);
            $error += $gain * ($read - $shown[$index] - $error);
            $variance *= 1.0 - $gain;
            $before = $at;
        }

        return $error;
    }

    /**
     * Of many readings those that say the most: the last ones, and the others evenly.
     *
     * @param non-empty-list<array{int, float}> $points
     *
     * @return non-empty-list<array{int, float}>
     */
    private static function thinned(array $points): array
    {
        $count = \count($points);
        if ($count <= self::MOST_POINTS) {
            return $points;
        }
        $lately = intdiv(self::MOST_POINTS, 3);
        $rest = self::MOST_POINTS - $lately;
        $kept = [$points[0]];
        for ($n = 1; $n < $rest; ++$n) {
            $kept[] = $points[(int) round(($n * ($count - 1 - $lately)) / ($rest - 1))];
        }

        return [...$kept, ...\array_slice($points, -$lately)];
    }

    /** @param array<int, float> $of */
    private static function square(array $of): float
    {
        return self::product($of, $of);
    }

    /**
     * @param array<int, float> $one
     * @param array<int, float> $other
     */
    private static function product(array $one, array $other): float
    {
        $sum = 0.0;
        foreach ($one as $at => $value) {
            $sum += $value * $other[$at];
        }

        return $sum;
    }
}
