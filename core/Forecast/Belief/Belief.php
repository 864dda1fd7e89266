<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Thermal\MeatProperties;

/**
 * The model's belief about one piece: a set of weighted trajectories. Without readings they are drawn from the prior;
 * with readings, around the best fit, as widely as the readings allow (Laplace's approximation after Gauss–Newton),
 * each weighted by its likelihood.
 *
 * Readings may differ from any trajectory by a slowly fading error (an Ornstein–Uhlenbeck process) and by thermometer
 * noise. The older a reading, the larger the error. Random numbers are a fixed sequence (Halton), so the same record
 * gives the same result.
 */
final class Belief
{
    public const DRAWS = 32;
    /** Seconds ahead beyond which nothing is said. */
    public const WITHIN = 14 * 86_400;
    private const GOES = 14_400.0; // seconds, ahead
    private const AHEAD_ERROR = 1.8; // °C
    private const AHEAD_ERROR_IN_THE_COLD = 1.4;
    private const GIVES_ABOVE = 25.0; // °C from the air
    /** Of the time that is left: by how much courses are usually off, and how much one may be. */
    private const PACE_UP = [0.0, 0.09];
    private const PACE_UP_WRAPPED = [0.04, 0.13]; // the effect of a wrap still to come is seen once it is on
    private const PACE_IN_WRAP = [0.11, 0.18];
    private const PACE_DOWN = [-0.1, 0.09];
    private const PACE_PACKED = [-0.1, 0.07];
    private const PACE_IN_DEAD_OVEN = [-0.1, 0.16];
    private const PACE_IN_THE_COLD = [-0.13, 0.065];
    /** Below so many °C in a cold room, the air decides when a piece gets close to its temperature. */
    private const PACE_NEAR_AIR = [-0.12, 0.1];
    private const NEAR_AIR = 10.0;
    private const USUALLY_WARM = 70.0; // °C
    private const HANDLING = 4.0; // °C

    private const UNTOLD = 6.0; // of the misfit that is expected
    private const CARRIED = 8; // draws
    private const RISES_FOR = 2700; // seconds over which a rise is told
    private const BEYOND = 4.0; // °C that a trajectory is followed beyond the target
    private const UNREAD = 36_000; // seconds since the last reading, where there is none
    /** Normal numbers and their shares. */
    private const ERRORS = [[-1.5, 0.16], [-0.6, 0.22], [0.0, 0.24], [0.6, 0.22], [1.5, 0.16]];
    private const PACES = [[-1.2, 0.3], [0.0, 0.4], [1.2, 0.3]];

    /** @var list<list<array{int, float, float, float}>>|null */
    private ?array $futures = null;
    private float $until = 0.0;
    /** @var array<int, Trajectory> by sample, followed until now; forecasts continue on copies */
    private array $courses = [];

    /**
     * @param list<array{ParameterSample, float, float}> $draws each with its weight and the error that lasts, at the
     *     last reading
     * @param int|null $lastRead the moment of the last reading
     * @param array<int, array{float, float}> $ofAllPieces values that likely hold for other pieces too, and the share
     *     the readings determine, by unknown
     * @param array<int, array{float, float}> $shown the likeliest and how much of it the readings say, by unknown
     */
    private function __construct(
        private readonly array $draws,
        private readonly CookRoute $way,
        private readonly ?int $lastRead,
        private readonly MeatProperties $properties,
        private readonly float $pressure,
        private readonly int $asOf,
        private readonly ?float $warm,
        public readonly array $ofAllPieces = [],
        public readonly array $shown = [],
    ) {
    }

    /**
     * @param list<array{int, float}> $points moments and °C of one track since the way began
     * @param float|null $before °C it was read at last before the way began
     * @param float $pressure Pa
     */
    public static function of(
        CookRoute $way,
        Prior $prior,
        array $points,
        ?float $before,
        float $pressure,
        int $asOf,
        int $draws = self::DRAWS,
    ): self {
        $warm = $way->isFromCold ? null : self::warm($points, $before);
        $properties = MeatProperties::of($prior->composition);
        $kept = [];
        if ($points === []) {
            for ($n = 0; $n < 2 * $draws; ++$n) {
                $kept[] = [new ParameterSample(Normal::numbers($n), $prior), 1.0, 0.0];
            }

            return new self($kept, $way, null, $properties, $pressure, $asOf, $warm);
        }
        $fit = Fit::of($way, $prior, $points, $properties, $pressure, $asOf, $warm);
        if ($way->isFromCold && $fit->misfit() > self::UNTOLD) {
            // Its history was not recorded: it begins with the first reading.
            $later = $way->later($points[0][0]);
            $since = array_values(
                array_filter($points, static fn (array $one): bool => $one[0] >= $later->legs[0]->from),
            );
            $last = $points[\count($points) - \count($since) - 1][1] ?? $before;

            return self::of($later, $prior, $since, $last, $pressure, $asOf, $draws);
        }
        $likelihoods = $lasting = $courses = [];
        for ($n = 0; $n < $draws; ++$n) {
            [$draw, $likelihoods[], $lasting[], $courses[]] = $fit->draw(Normal::numbers($n));
            $kept[] = [$draw, 1.0, 0.0];
        }
        $weights = self::weights($likelihoods);
        foreach ($kept as $n => [$draw]) {
            $kept[$n] = [$draw, $weights[$n], $lasting[$n]];
        }

        $belief = new self(
            $kept,
            $way,
            $points[\count($points) - 1][0],
            $properties,
            $pressure,
            $asOf,
            $warm,
            $fit->ofAllPieces(),
            $fit->says(),
        );
        $belief->courses = $courses;

        return $belief;
    }

    /**
     * When a probe shows a temperature, on the way up or down.
     *
     * @param int $within seconds after which it is given up
     */
    public function crossing(float $celsius, bool $isRising, int $within): Odds
    {
        return new Odds($this->passes($celsius, $isRising, $within));
    }

    /**
     * 0 to 1: the chance that it passes a temperature, on its way down, later than a moment, and later than so many
     * seconds after another that is still ahead.
     */
    public function lateAfter(float $hot, int $seconds, float $celsius, int $moment, int $within): float
    {
        $late = 0.0;
        $cold = $this->passes($celsius, false, $within);
        foreach ($this->passes($hot, false, $within) as $n => [$begun, $weight]) {
            $passed = $cold[$n][0];
            $until = $begun !== null && $begun > $this->asOf ? max($moment, $begun + $seconds) : $moment;
            $late += $passed === null || $passed > $until ? $weight : 0.0;
        }

        return $late / array_sum(array_column($cold, 1));
    }

    /**
     * 0 to 1: the chance that it has passed each of some temperatures, on its way down, after so many seconds; and all
     * of them.
     *
     * @param non-empty-list<array{float, int}> $gates °C, and seconds from now
     *
     * @return array{non-empty-list<float>, float}
     */
    public function inTime(array $gates): array
    {
        $within = max(array_column($gates, 1));
        $each = $isAll = [];
        foreach ($gates as [$celsius, $seconds]) {
            $passes = $this->passes($celsius, false, $within);
            $all = array_sum(array_column($passes, 1));
            $sum = 0.0;
            foreach ($passes as $n => [$at, $weight]) {
                $isPassed = $at !== null && $at <= $this->asOf + $seconds;
                $isAll[$n] = $isPassed ? $isAll[$n] ?? $weight / $all : 0.0;
                $sum += $isPassed ? $weight / $all : 0.0;
            }
            $each[] = min(1.0, $sum);
        }

        return [$each, min(1.0, array_sum($isAll))];
    }

    /**
     * When each of the ways it may be passes a temperature, always in the same order.
     *
     * @return list<array{int|null, float}> seconds since 1970, null for never, and weights
     */
    private function passes(float $celsius, bool $isRising, int $within): array
    {
        $sign = $isRising ? 1.0 : -1.0;
        $odds = [];
        [$usual, $give] = match (true) {
            !$isRising => $this->paceDown($celsius),
            $this->way->atCelsius !== [] => self::PACE_UP_WRAPPED,
            $this->leg()->wrap !== null => self::PACE_IN_WRAP,
            default => self::PACE_UP,
        };
        foreach ($this->futures($celsius + self::BEYOND * $sign, $sign, $within) as $n => $ahead) {
            $weight = $this->draws[$n][1];
            foreach (self::ERRORS as [$error, $share]) {
                $passed = $this->passed($ahead, $celsius, $sign, $error);
                foreach (self::PACES as [$pace, $part]) {
                    $odds[] = [
                        $passed === null ? null : $this->asOf + (int) ($passed * (1.0 + $usual + $give * $pace)),
                        $weight * $share * $part,
                    ];
                }
            }
        }

        return $odds;
    }

    /** @return array{float, float} */
    private function paceDown(float $celsius): array
    {
        if ($this->way->isInTheCold()) {
            return $this->isInRoom() && $celsius < self::NEAR_AIR ? self::PACE_NEAR_AIR : self::PACE_IN_THE_COLD;
        }

        return match ($this->leg()->holding) {
            Holding::Box, Holding::Towels => self::PACE_PACKED,
            Holding::DeadOven => self::PACE_IN_DEAD_OVEN,
            default => self::PACE_DOWN,
        };
    }

    private function isInRoom(): bool
    {
        return \in_array($this->leg()->holding, [Holding::WalkIn, Holding::ShallowPans], true);
    }

    /** Where it is now. */
    private function leg(): Leg
    {
        return $this->way->legs[\count($this->way->legs) - 1];
    }

    /**
     * When it rises again as meat on the heat does, after it stalled.
     *
     * @param float $perHour °C
     */
    public function risesAgain(float $perHour, int $within): Odds
    {
        $odds = [];
        [$usual, $give] = self::PACE_UP;
        foreach ($this->futures ?? [] as $n => $ahead) {
            $again = self::again($ahead, $perHour, $within);
            foreach (self::PACES as [$pace, $part]) {
                $odds[] = [
                    $again === null
                        ? null
                        : $this->asOf + (int) (($again - $this->asOf) * (1.0 + $usual + $give * $pace)),
                    $this->draws[$n][1] * $part,
                ];
            }
        }

        return new Odds($odds === [] ? [[null, 1.0]] : $odds);
    }

    /** @param list<array{int, float, float, float}> $ahead */
    private static function again(array $ahead, float $perHour, int $within): ?int
    {
        $later = 0;
        foreach ($ahead as [$at, $shown]) {
            while (isset($ahead[$later]) && $ahead[$later][0] < $at + self::RISES_FOR) {
                ++$later;
            }
            if (!isset($ahead[$later]) || $at > $ahead[0][0] + $within) {
                return null;
            }
            if (($ahead[$later][1] - $shown) * 3600 >= $perHour * ($ahead[$later][0] - $at)) {
                return $at;
            }
        }

        return null;
    }

    /**
     * How warm its middle gets once it is pulled at a temperature.
     *
     * @return array{float, float, float}|null °C, the 5, 50 and 95 %; null where it may never be so warm
     */
    public function carriedTo(float $pulledAt, Leg $rest, int $within): ?array
    {
        $found = [];
        foreach (\array_slice($this->draws, 0, self::CARRIED) as $n => [, $weight]) {
            $warmest = $this->course($n)->carriedTo($pulledAt, $rest, $within);
            if ($warmest !== null) {
                $found[] = [$warmest, $weight];
            }
        }
        usort($found, static fn (array $one, array $other): int => $one[0] <=> $other[0]);

        return \count($found) < self::CARRIED / 2
            ? null
            : [self::part($found, 0.05), self::part($found, 0.5), self::part($found, 0.95)];
    }

    /**
     * Which of its unknowns decides most of how far apart the moments lie at which it passes a temperature: that whose
     * rank goes most with theirs.
     *
     * @param list<int> $unknowns of ParameterSample
     *
     * @return array{int, float}|null the unknown, and how much of the differences it decides, 0 to 1
     */
    public function decides(float $celsius, bool $isRising, array $unknowns): ?array
    {
        $sign = $isRising ? 1.0 : -1.0;
        $moments = $values = [];
        foreach ($this->futures ?? [] as $n => $ahead) {
            $passed = $this->passed($ahead, $celsius, $sign, 0.0);
            $moments[] = $passed ?? (float) \PHP_INT_MAX;
            foreach ($unknowns as $unknown) {
                $values[$unknown][] = $this->draws[$n][0]->of($unknown);
            }
        }
        $most = null;
        foreach ($values as $unknown => $of) {
            $share = self::alike(self::ranks($of), self::ranks($moments)) ** 2;
            if ($most === null || $share > $most[1]) {
                $most = [$unknown, $share];
            }
        }

        return $most;
    }

    /**
     * @param list<float> $values
     *
     * @return array<int, int>
     */
    private static function ranks(array $values): array
    {
        asort($values);
        $ranks = array_flip(array_keys($values));
        ksort($ranks);

        return $ranks;
    }

    /**
     * Spearman's coefficient.
     *
     * @param array<int, int> $one
     * @param array<int, int> $other
     */
    private static function alike(array $one, array $other): float
    {
        $count = \count($one);
        $apart = 0;
        foreach ($one as $n => $rank) {
            $apart += ($rank - $other[$n]) ** 2;
        }

        return $count < 3 ? 0.0 : 1.0 - (6.0 * $apart) / ($count * ($count ** 2 - 1));
    }

    /** The same food, if it went on in another way from now. */
    public function instead(Leg $leg): self
    {
        $way = $this->way->then($leg);
        $other = new self(
            $this->draws,
            $way,
            $this->lastRead,
            $this->properties,
            $this->pressure,
            $this->asOf,
            $this->warm,
            $this->ofAllPieces,
        );
        foreach (array_keys($this->draws) as $n) {
            $other->courses[$n] = $this->course($n)->on($way);
        }

        return $other;
    }

    /** m: how deep it lies in its pan now; null for a piece. */
    public function depth(): ?float
    {
        return $this->way->legs[0]->depth;
    }

    /** Whether the surrounding temperature was read at its present place. */
    public function isAirRead(): bool
    {
        return $this->leg()->air !== [];
    }

    /**
     * How warm it may be at later moments, as far as it was followed for the crossings asked for.
     *
     * @param list<int> $moments in order
     *
     * @return list<array{float, float}> °C, the 5 and 95 % at each
     */
    public function between(array $moments): array
    {
        $found = [];
        foreach ($moments as $moment) {
            $at = [];
            foreach ($this->futures ?? [] as $n => $ahead) {
                $weight = $this->draws[$n][1];
                foreach (self::ERRORS as [$error, $share]) {
                    $at[] = [self::shown($ahead, $moment, $error), $weight * $share];
                }
            }
            usort($at, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
            $found[] = [self::part($at, 0.05), self::part($at, 0.95)];
        }

        return $found;
    }

    /**
     * Each draw's way from now on, followed once for all that is asked in one direction.
     *
     * @return list<list<array{int, float, float, float}>> moments, °C, °C by which a probe is off as it was at its last
     *     reading, and by how many more it may be
     */
    private function futures(float $until, float $sign, int $within): array
    {
        if ($this->futures === null || $sign * ($until - $this->until) > 0.0) {
            $isOver = static fn (float $shown): bool => $sign * ($shown - $until) > 0.0;
            $this->futures = $gives = [];
            foreach ($this->draws as $n => [, , $off]) {
                $future = [];
                foreach ($this->course($n)->ahead($within, $isOver) as [$at, $celsius, $air]) {
                    [$kept, $more] = $gives[$at] ??= $this->gives($at);
                    // Meat nearly as warm as the air leaves little doubt about the air.
                    $room = min(1.0, abs($celsius - $air) / self::GIVES_ABOVE);
                    $future[] = [$at, $celsius, $room * $off * $kept, $room * $more];
                }
                $this->futures[] = $future;
            }
            $this->until = $until;
        }

        return $this->futures;
    }

    /** @return array{float, float} remaining error of the last reading; possible error since, °C */
    private function gives(int $at): array
    {
        $kept = exp(-($at - ($this->lastRead ?? $this->asOf - self::UNREAD)) / self::GOES);

        $error = $this->way->isInTheCold() ? self::AHEAD_ERROR_IN_THE_COLD : self::AHEAD_ERROR;

        return [$kept, $error * sqrt(1.0 - $kept ** 2)];
    }

    /** A draw's course, followed until now. */
    private function course(int $n): Trajectory
    {
        $this->courses[$n] ??= new Trajectory(
            $this->draws[$n][0],
            $this->way,
            $this->properties,
            $this->pressure,
            $this->warm,
            $this->asOf,
        );

        return clone $this->courses[$n]->untilNow();
    }

    /** @param list<array{int, float, float, float}> $ahead */
    private static function shown(array $ahead, int $moment, float $error): float
    {
        $before = null;
        foreach ($ahead as [$at, $celsius, $off, $more]) {
            $shown = $celsius + $off + $error * $more;
            if ($at >= $moment) {
                return $before === null
                    ? $shown
                    : $before[1] + (($shown - $before[1]) * ($moment - $before[0])) / ($at - $before[0]);
            }
            $before = [$at, $shown];
        }

        return $before[1] ?? 0.0;
    }

    /** @param list<array{float, float}> $sorted values and weights */
    private static function part(array $sorted, float $part): float
    {
        $all = array_sum(array_column($sorted, 1));
        $sum = 0.0;
        foreach ($sorted as [$value, $weight]) {
            $sum += $weight;
            if ($sum >= $part * $all) {
                return $value;
            }
        }

        return $sorted[\count($sorted) - 1][0] ?? 0.0;
    }

    /**
     * @param list<array{int, float, float, float}> $ahead
     *
     * @return float|null seconds from now
     */
    private function passed(array $ahead, float $celsius, float $sign, float $error): ?float
    {
        $before = null;
        $from = $this->asOf;
        foreach ($ahead as [$at, $shown, $off, $more]) {
            $now = $shown + $off + $error * $more;
            if ($sign * ($now - $celsius) >= 0.0) {
                $rise = $now - ($before ?? $now);

                return abs($rise) < 1e-9
                    ? (float) ($from - $this->asOf)
                    : $from - $this->asOf + (($at - $from) * ($celsius - (float) $before)) / $rise;
            }
            [$before, $from] = [$now, $at];
        }

        return null;
    }

    /**
     * As much of their differences as leaves a third of them a say: few draws cannot tell more.
     *
     * @param array<int, float> $logs of their likelihoods
     *
     * @return array<int, float>
     */
    private static function weights(array $logs): array
    {
        $most = $logs === [] ? 0.0 : max($logs);
        $power = 1.0;
        do {
            $weights = array_map(static fn (float $log): float => exp($power * max(-40.0, $log - $most)), $logs);
            $squares = array_map(static fn (float $one): float => $one ** 2, $weights);
            $say = array_sum($weights) ** 2 / array_sum($squares);
            $power *= 0.8;
        } while ($say < \count($logs) / 3 && $power > 0.02);

        return $weights;
    }

    /**
     * Its first temperature: as first read; before that, a little cooler than before handling.
     *
     * @param list<array{int, float}> $points
     */
    private static function warm(array $points, ?float $before): float
    {
        return $points[0][1] ?? ($before ?? self::USUALLY_WARM) - self::HANDLING;
    }

    /**
     * Where it is kept, its courses are one string each: to read thousands of small lists took longer than the page
     * that asked for them.
     *
     * @return array{list<string>|null, float, array<string, mixed>}
     */
    public function __serialize(): array
    {
        $futures = $this->futures === null
            ? null
            : array_map(static fn (array $ahead): string => pack('d*', ...array_merge(...$ahead)), $this->futures);
        $rest = [
            'draws' => $this->draws,
            'way' => $this->way,
            'lastRead' => $this->lastRead,
            'properties' => $this->properties,
            'pressure' => $this->pressure,
            'asOf' => $this->asOf,
            'warm' => $this->warm,
            'ofAllPieces' => $this->ofAllPieces,
            'shown' => $this->shown,
        ];

        return [$futures, $this->until, $rest];
    }

    /**
     * @param array{list<string>|null, float, array{draws: list<array{ParameterSample, float, float}>, way: CookRoute,
     *     lastRead: int|null, properties: MeatProperties, pressure: float, asOf: int, warm: float|null,
     *     ofAllPieces: array<int, array{float, float}>, shown: array<int, array{float, float}>}} $kept
     */
    public function __unserialize(array $kept): void
    {
        [$futures, $this->until, $rest] = $kept;
        $this->draws = $rest['draws'];
        $this->way = $rest['way'];
        $this->lastRead = $rest['lastRead'];
        $this->properties = $rest['properties'];
        $this->pressure = $rest['pressure'];
        $this->asOf = $rest['asOf'];
        $this->warm = $rest['warm'];
        $this->ofAllPieces = $rest['ofAllPieces'];
        $this->shown = $rest['shown'];
        $this->futures = $futures === null ? null : array_map(self::unpacked(...), $futures);
    }

    /** @return list<array{int, float, float, float}> */
    private static function unpacked(string $packed): array
    {
        /** @var array<int, float> $figures */
        $figures = (array) unpack('d*', $packed);
        $ahead = [];
        for ($at = 1; isset($figures[$at + 3]); $at += 4) {
            $ahead[] = [(int) $figures[$at], $figures[$at + 1], $figures[$at + 2], $figures[$at + 3]];
        }

        return $ahead;
    }
}
