<?php

declare(strict_types=1);

namespace Verjuicer\Bench;

/** What becomes of a cook off the heat: a rest, or a cooling whole or in a pan; and what is written down of it. */
final class SimulatedFall
{
    public const RESTS = ['rack', 'counter', 'towels', 'box', 'dead_oven'];
    public const COOLINGS = ['walk_in', 'shallow_pans', 'blast_chiller', 'ice_bath'];
    private const MOST_HOURS = 30;

    /** @var list<float> °C by the minute, as the probe has it */
    public array $middle = [];
    /** @var list<float> */
    public array $air = [];
    public ?int $depth = null;
    public bool $isCovered = false;
    public bool $isLogged;

    public function __construct(public readonly SimulatedCook $cook, public readonly string $method)
    {
        $meat = clone $cook->meat;
        $this->isLogged = mt_rand(0, 1) === 1;
        $between = SimulatedCook::between(...);
        if ($method === 'shallow_pans' || ($method !== 'walk_in' && \in_array($method, self::COOLINGS, true))) {
            $this->depth = (int) (5 * round($between(25, 90) / 5));
            $this->isCovered = mt_rand(0, 2) === 0;
            $meat = new SimulatedMeat(
                $this->depth / 1000 / ($method === 'ice_bath' ? $between(1.0, 1.25) : $between(1.5, 2.0)),
                0.13,
                false,
                min($meat->mean(), 75.0) - $between(3, 10),
                0.66,
                $between(0.1, 0.4),
                $between(0.3, 1.5),
                3.0,
            );
        }
        [$air, $rise, $fades, $transfer] = match ($method) {
            'rack' => [$between(17, 27), 2.0, 3600.0, $between(6, 12)],
            'counter' => [$between(17, 27), 1.0, 3600.0, $between(7, 15)],
            'towels' => [$between(18, 26), $between(2, 10), 5400.0, $between(2, 4.5)],
            'box' => [$between(28, 42), $between(-12, -4), 3000.0, $between(1, 2.8)],
            'dead_oven' => [$between(21, 30), $between(25, 75), $between(5000, 12_000), $between(4, 9)],
            'walk_in' => [$between(1.5, 4.5), $between(0, 4), 6000.0, $between(8, 18)],
            'shallow_pans' => [$between(1.5, 4.5), $between(0, 5), 6000.0, $between(9, 20)],
            'blast_chiller' => [$between(-10, 1), $between(1, 8), 2400.0, $between(20, 45)],
            default => [$between(0, 1.5), $between(0, 3), 2400.0, $between(80, 220)],
        };
        $open = match (true) {
            $this->isCovered, \in_array($method, ['towels', 'box', 'ice_bath'], true), $cook->wrapAt !== null => 0.03,
            default => 1.0,
        };
        $transfer *= $this->isCovered ? 0.7 : 1.0;
        $below = $this->depth === null ? $between(0.6, 1.0) : 0.6;
        $error = 0.5 * SimulatedCook::normal();
        $wander = 0.0;
        $last = $this->depth === null && \in_array($method, self::RESTS, true) ? 50.0 : 3.5;
        for ($t = 0; $t < self::MOST_HOURS * 3600; $t += 60) {
            $wander += -$wander * (60 / 3000) + 0.8 * sqrt(120 / 3000) * SimulatedCook::normal();
            $now = $air + $rise * exp(-$t / $fades) + ($method === 'ice_bath' ? 0.0 : $wander);
            // Cold air holds little water.
            $holds = 133.322 * 10 ** (8.07131 - 1730.63 / (233.426 + $now));
            $meat->stay(60, $now, $transfer, $below, min(800.0, 0.85 * $holds), $open);
            $this->middle[] = $meat->centre() + $error;
            $this->air[] = $now;
            if ($this->middle[\count($this->middle) - 1] < $last) {
                break;
            }
        }
    }

    /** @return int|null seconds since it began in which it falls to so many °C; null where it does not */
    public function under(float $celsius): ?int
    {
        foreach ($this->middle as $minute => $now) {
            if ($now <= $celsius) {
                return 60 * ($minute + 1);
            }
        }

        return null;
    }

    /**
     * As it was written down until a moment of it.
     *
     * @return array<string, mixed> verjuicer-record/1
     */
    public function record(int $until, int $seed): array
    {
        $done = (int) $this->cook->done;
        $record = $this->cook->record($done, $seed);
        $events = $record['batch']['events'];
        $isRest = \in_array($this->method, self::RESTS, true);
        $more = [[0, $isRest ? 'rest' : 'cool', ['method' => strtr($this->method, '_', ' '), 'holding' => $this->method]
            + ($this->depth === null ? [] : ['depth_mm' => $this->depth, 'covered' => $this->isCovered])
            + ($this->isLogged && !$isRest ? ['around' => ['f' => round($this->air[5] * 1.8 + 32)]] : [])]];
        $every = SimulatedCook::between(15, 45);
        for ($t = 60 * mt_rand(2, 15); $t <= $until; $t += 60 * (int) ($every * SimulatedCook::between(0.6, 1.4))) {
            $celsius = $this->middle[intdiv($t, 60) - 1] + 0.25 * SimulatedCook::normal();
            $more[] = [$t, 'reading', ['temp' => ['f' => round($celsius * 1.8 + 32)], 'piece' => 1, 'spot' => 'core']];
        }
        for ($t = 60 * mt_rand(15, 40); $this->isLogged && !$isRest && $t <= $until; $t += 60 * mt_rand(25, 60)) {
            $more[] = [$t, 'pit_reading', ['temp' => ['f' => round($this->air[intdiv($t, 60) - 1] * 1.8 + 32)]]];
        }
        usort($more, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
        foreach ($more as $n => [$at, $type, $members]) {
            $when = SimulatedCook::time($done + $at);
            $events[] = ['id' => "f$n", 'at' => $when, 'by' => 'QL', 'type' => $type] + $members;
        }

        return SimulatedCook::file($this->cook, $events, $done + $until);
    }
}
