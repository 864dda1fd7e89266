<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Thermal\Body;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Core\Thermal\Surface;

/** The temperatures a probe would show if a draw were right. */
final class Trajectory
{
    private const CELLS = 6;
    private const STEP = 450;
    /** Seconds after which steps get longer, one after another, while it moves by less than so much, °C, in one. */
    private const LONG_AGO = 36 * 3600;
    private const MOVES = 0.05;
    private const LONGEST = 24 * 3600;
    private const CARRIES = 2 * 3600; // seconds after which nothing goes on into the middle
    /** From how many seconds on ahead steps are so long. */
    private const AHEAD = [[6 * 3600, 300], [24 * 3600, 900], [48 * 3600, 1800], [\PHP_INT_MAX, 2 * 3600]];
    /** Where nothing in it moves by more than so much, °C, in a second, it goes nowhere any more. */
    private const STANDS = 0.005 / 1800;

    private Body $body;
    private int $at;
    private int $leg = 0;
    private int $spoken = 0;
    private ?Surface $surface = null;
    private ?float $said = null;
    private float $excess = 0.0;
    private float $fades = 1.0;
    private bool $isFreely = false;
    private ?Leg $planned = null;
    private float $airNow = 0.0;
    private ?ColdAir $coldAir = null;
    private int $pace = self::STEP;

    /** @param float|null $warm °C it begins with, as it was read; null out of the cold */
    public function __construct(
        private readonly ParameterSample $draw,
        private CookRoute $way,
        private readonly MeatProperties $properties,
        private readonly float $pressure,
        private readonly ?float $warm,
        private readonly int $asOf,
    ) {
        $first = $way->legs[0];
        $this->at = $first->from;
        $this->body = $this->begun($first, $warm);
        $this->enter();
    }

    public function __clone()
    {
        $this->body = clone $this->body;
    }

    /** As it is now, and goes on in another way that was the same until now. */
    public function on(CookRoute $way): self
    {
        $other = clone $this;
        $other->way = $way;

        return $other;
    }

    /** Followed until now. */
    public function untilNow(): self
    {
        while ($this->at < $this->asOf) {
            $this->step(min($this->paced($this->asOf), $this->asOf - $this->at));
        }

        return $this;
    }

    /**
     * @param list<int> $moments in order, none later than now
     *
     * @return list<float> °C at each
     */
    public function read(array $moments): array
    {
        $shown = [];
        $before = $this->probe();
        $from = $this->at;
        foreach ($moments as $moment) {
            while ($this->at < min($moment, $this->asOf)) {
                [$from, $before] = [$this->at, $this->probe()];
                $this->step(min($this->paced($moment), $this->asOf - $this->at));
            }
            $now = $this->probe();
            $shown[] = $this->at === $from
                ? $now
                : $before + (($now - $before) * max(0, $moment - $from)) / ($this->at - $from);
        }

        return $shown;
    }

    /**
     * @param \Closure(float): bool $isOver whether enough is known, by the last temperature
     *
     * @return list<array{int, float, float}> moments, °C, and °C of the air then, from now on
     */
    public function ahead(int $seconds, \Closure $isOver): array
    {
        $this->untilNow();
        $from = $this->asOf;
        $celsius = $this->body->middle();
        $this->airNow = $this->surface->air ?? 0.0;
        $shown = [[$this->at, $celsius, $this->airNow]];
        $band = 0;
        $planned = $this->way->atCelsius;
        while ($this->at < $from + $seconds && !$isOver($celsius)) {
            while ($this->at - $from >= self::AHEAD[$band][0]) {
                ++$band;
            }
            $before = $this->body->cells;
            $this->step(self::AHEAD[$band][1]);
            $celsius = $this->body->middle();
            $shown[] = [$this->at, $celsius, $this->airNow];
            if ($band > 0 && $this->stands($before, self::AHEAD[$band][1])) {
                break;
            }
            if ($planned !== [] && $celsius >= $planned[0][0]) {
                $this->enter(array_shift($planned)[1]);
            }
        }

        return $shown;
    }

    /** @param list<float> $before °C of each cell, so many seconds ago */
    private function stands(array $before, int $seconds): bool
    {
        foreach ($this->body->cells as $cell => $celsius) {
            if (abs($celsius - $before[$cell]) > self::STANDS * $seconds) {
                return false;
            }
        }

        return !isset($this->way->legs[$this->leg + 1]);
    }

    /**
     * The peak of the middle after a pull at a temperature: heat in the outer layers flows in.
     *
     * @param Leg $rest where it is put
     *
     * @return float|null °C; null where it never gets so warm
     */
    public function carriedTo(float $pulledAt, Leg $rest, int $within): ?float
    {
        $this->ahead($within, static fn (float $celsius): bool => $celsius >= $pulledAt);
        $warmest = $this->body->middle();
        if ($warmest < $pulledAt) {
            return null;
        }
        // Between two steps it was exactly so warm: by as much it is above, it is less later.
        $above = $warmest - $pulledAt;
        $this->enter($rest->beginning($this->at));
        for ($until = $this->at + self::CARRIES; $this->at < $until;) {
            $this->step(self::AHEAD[0][1]);
            $middle = $this->body->middle();
            if ($middle < $warmest) {
                break;
            }
            $warmest = $middle;
        }

        return $warmest - $above;
    }

    private function probe(): float
    {
        return $this->body->at($this->draw->offCentre);
    }

    private function begun(Leg $leg, ?float $warm): Body
    {
        return Body::even(
            $this->properties,
            $leg->depth === null ? $this->draw->half : $this->draw->halfOf($leg->depth, $leg->holding),
            $leg->depth === null ? $this->draw->shape : 0.0,
            $warm === null ? $this->draw->start : $warm + ($this->draw->start - 4.5) * 0.4,
            self::CELLS,
            $this->pressure,
        );
    }

    /** @param Leg|null $planned one that comes when it is as warm as was planned */
    private function enter(?Leg $planned = null): void
    {
        $leg = $planned ?? $this->way->legs[$this->leg];
        $this->spoken = 0;
        $this->pace = self::STEP;
        [$this->surface, $this->excess, $this->fades] = $this->draw->surface($leg, $leg->air[0][1] ?? null);
        $this->said = $leg->air[0][1] ?? null;
        $this->coldAir = $planned === null ? $this->way->coldAir[$this->leg] : null;
        if ($leg->holding === null && $this->isFreely) {
            $this->surface = $this->surface->with($this->surface->air, $this->draw->freely);
        }
        $this->planned = $planned;
        if ($planned === null && $leg->depth !== null && $leg->from > $this->way->legs[0]->from) {
            $this->body = $this->begun($leg, $this->body->middle());
        }
    }

    /** Seconds of the next step towards a moment: steps grow while nothing changes for days. */
    private function paced(int $until): int
    {
        $leaves = $this->way->legs[$this->leg + 1]->from ?? \PHP_INT_MAX;
        if ($this->pace === self::STEP || $leaves <= $this->at) {
            return self::STEP;
        }
        $air = $this->way->legs[$this->leg]->air[$this->spoken + 1][0] ?? $until;
        $next = min($until, $air > $this->at ? $air : $until, $this->asOf);

        return max(self::STEP, min($this->pace, $next - $this->at));
    }

    private function step(int $seconds): void
    {
        $legs = $this->way->legs;
        $next = $legs[$this->leg + 1] ?? null;
        if ($next !== null) {
            if ($next->from <= $this->at) {
                ++$this->leg;
                $this->enter();
            } elseif ($next->from < $this->at + $seconds) {
                $seconds = $next->from - $this->at;
            }
        }
        $leg = $this->planned ?? $legs[$this->leg];
        $said = $this->air($leg->air, $this->at + intdiv($seconds, 2));
        $surface = $this->surface;
        \assert($surface !== null);
        if ($said !== null && abs($said - (float) $this->said) > 0.4) {
            $surface = $this->surface = $surface->with($surface->air + $said - (float) $this->said);
            $this->said = $said;
        }
        if (!$this->isFreely && $this->at >= $this->asOf) {
            $this->isFreely = true;
            if ($leg->holding === null) {
                $surface = $this->surface = $surface->with($surface->air, $this->draw->freely);
            }
        }
        $air = $surface->air;
        if ($this->excess !== 0.0) {
            $air += $this->excess * exp(-($this->at - $leg->from) / $this->fades);
        }
        if ($this->coldAir !== null) {
            // Air that a warm load raised goes on to fall after it was read.
            $air += $this->coldAir->since($this->at, $this->draw->kept);
        }
        $this->airNow = $air;
        $before = $this->body->cells;
        $this->body->step((float) $seconds, $surface, $air);
        $this->at += $seconds;
        if ($this->at - $this->way->legs[0]->from > self::LONG_AGO) {
            $cells = $this->body->cells;
            $last = \count($cells) - 1;
            $moved = max(abs($cells[0] - $before[0]), abs($cells[$last] - $before[$last]));
            $this->pace = $moved < self::MOVES ? min(2 * $this->pace, self::LONGEST) : self::STEP;
        }
    }

    /**
     * As it was read or set last, in a straight line to the next.
     *
     * @param list<array{int, float}> $air
     */
    private function air(array $air, int $at): ?float
    {
        if (!isset($air[1])) {
            return $air[0][1] ?? null;
        }
        while (isset($air[$this->spoken + 1]) && $air[$this->spoken + 1][0] <= $at) {
            ++$this->spoken;
        }
        [$from, $before] = $air[$this->spoken];
        $next = $air[$this->spoken + 1] ?? null;

        if ($next === null || $at <= $from) {
            return $before;
        }

        return $before + (($next[1] - $before) * ($at - $from)) / ($next[0] - $from);
    }
}
