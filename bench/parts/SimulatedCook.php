<?php

declare(strict_types=1);

namespace Verjuicer\Bench;

/**
 * A cook as it might be written down, and as it was: a pit that drifts and whose lid is opened, a probe that is off and
 * not quite in the middle, readings to a degree with gaps, a wrap, a change of the set point.
 */
final class SimulatedCook
{
    private const BEGUN = 1_780_300_800;
    private const MOST_HOURS = 30;

    /** By kind: name, animal, form, kg, flatness of its cross-section, round or not, pit and target in °F, wraps. */
    private const KINDS = [
        'shoulder' => [['Pork butt', 'pork', 'cut'], [2.2, 4.5], [1.05, 1.6], false, [225, 285], [193, 205], 0.6],
        'brisket' => [['Brisket', 'beef', 'cut'], [4.0, 7.0], [2.4, 3.6], false, [225, 285], [195, 205], 0.7],
        'lamb' => [['Lamb shoulder', 'lamb', 'cut'], [1.8, 3.2], [1.2, 2.0], false, [235, 285], [190, 203], 0.5],
        'ribs' => [['Pork ribs', 'pork', 'cut'], [1.1, 1.8], [3.5, 5.5], false, [225, 285], [190, 201], 0.5],
        'roast' => [['Pork loin', 'pork', 'roast'], [1.2, 3.5], [1.0, 1.5], false, [225, 300], [140, 147], 0.0],
        'beef roast' => [['Beef roast', 'beef', 'roast'], [1.5, 4.0], [1.0, 1.5], false, [225, 275], [125, 140], 0.0],
        'turkey' => [['Turkey breast', 'turkey', 'cut'], [1.5, 3.2], [1.1, 1.7], false, [250, 325], [160, 167], 0.0],
        'chicken' => [['Chicken', 'chicken', 'whole_bird'], [1.4, 2.4], [1.0, 1.2], true, [275, 325], [165, 172], 0.0],
        'duck' => [['Duck', 'duck', 'whole_bird'], [1.8, 2.8], [1.0, 1.3], true, [250, 300], [165, 175], 0.0],
    ];

    public string $kind;
    public string $name;
    public string $animal;
    public string $form;
    public float $kg;
    public float $target; // °C
    public SimulatedMeat $meat;
    public ?int $wrapAt = null; // seconds since it began
    public ?float $wrapTemp = null;
    public string $wrapWith = 'foil';
    public ?int $setAt = null;
    public float $setFirst; // °F
    public float $setThen;
    /** @var list<float> °C of the middle by the minute */
    public array $middle = [];
    /** @var list<float> as the probe has it */
    public array $probe = [];
    /** @var list<float> of the pit at the gauge */
    public array $gauge = [];
    public ?int $done = null;
    public bool $isKnownThickness;
    public float $air = 22.0;

    /** @param array{float, float}|null $pit one of its own: W/(m² K), and by how many °C it is warmer at the meat */
    public function __construct(?string $kind = null, private readonly ?array $pit = null)
    {
        $kinds = array_keys(self::KINDS);
        $this->kind = $kind ?? $kinds[mt_rand(0, \count($kinds) - 1)];
        [$said, $kg, $flat, $isRound, $pit, $target, $wraps] = self::KINDS[$this->kind];
        [$this->name, $this->animal, $this->form] = $said;
        $this->kg = round(self::between(...$kg), 1);
        $flat = self::between(...$flat);
        // A block of 2a × 2b × long, or something round of radius a and half length b.
        $volume = $this->kg / 1060;
        if ($isRound) {
            // What is left out inside makes it thinner than its weight.
            $a = (0.6 * $volume / (2 * \M_PI * $flat)) ** (1 / 3);
            $b = $flat * $a;
        } else {
            $long = $this->kind === 'ribs' ? 6.0 : self::between(1.2, 1.9);
            $a = ($volume / (8 * $flat * $flat * $long)) ** (1 / 3);
            $b = $flat * $a;
        }
        $this->meat = new SimulatedMeat(
            $a,
            $b,
            $isRound,
            self::between(2, 9),
            self::between(0.62, 0.76),
            self::between(0.15, 0.6),
            self::between(0.3, 1.8),
            exp(self::between(log(2), log(10))),
        );
        $this->target = (round(self::between(...$target)) - 32) / 1.8;
        $this->setFirst = 5 * round(self::between(...$pit) / 5);
        $this->setThen = $this->setFirst + 5 * mt_rand(3, 10);
        $this->isKnownThickness = mt_rand(0, 3) === 0;
        if (self::between(0, 1) < $wraps) {
            $this->wrapTemp = round(self::between(155, 172));
            $this->wrapWith = ['foil', 'foil', 'paper'][mt_rand(0, 2)];
        }
        if (self::between(0, 1) < 0.3) {
            $this->setAt = 60 * (int) self::between(90, 420);
        }
        $this->run();
    }

    public static function between(float $least, float $most): float
    {
        return $least + (($most - $least) * mt_rand()) / mt_getrandmax();
    }

    public static function normal(): float
    {
        return sqrt(-2 * log(max(1e-12, mt_rand() / mt_getrandmax()))) * cos((2 * \M_PI * mt_rand()) / mt_getrandmax());
    }

    private function run(): void
    {
        $transfer = self::between(8, 21);
        $below = self::between(0.7, 1.0);
        $vapour = self::between(1500, 6000);
        $bias = 4.5 * self::normal();
        [$transfer, $bias] = $this->pit ?? [$transfer, $bias];
        $drift = $wander = $lid = 0.0;
        $offX = abs(0.13 * self::normal());
        $offY = abs(0.13 * self::normal());
        $error = mt_rand(1, 20) === 1 ? 4.0 * self::normal() : 0.6 * self::normal();
        $slow = self::between(3000, 9000);
        $nextLid = 60 * self::between(40, 120);
        $set = ($this->setFirst - 32) / 1.8;
        $open = 1.0;
        for ($t = 0; $t < self::MOST_HOURS * 3600; $t += 60) {
            if ($this->setAt !== null && $t === $this->setAt) {
                $set = ($this->setThen - 32) / 1.8;
            }
            $drift += ($set + $wander - $drift) * ($t === 0 ? 1.0 : 60 / 700);
            $wander += -$wander * (60 / $slow) + 4.0 * sqrt(2 * 60 / $slow) * self::normal();
            if ($t > $nextLid) {
                $lid = self::between(15, 45);
                $nextLid = $t + 60 * self::between(35, 110);
            }
            $lid *= exp(-60 / 260);
            $air = $drift - $lid;
            $shown = $this->probe[\count($this->probe) - 1] ?? 0.0;
            if ($this->wrapTemp !== null && $this->wrapAt === null && $shown > ($this->wrapTemp - 32) / 1.8) {
                $this->wrapAt = $t;
                $open = $this->wrapWith === 'paper' ? self::between(0.15, 0.4) : self::between(0.01, 0.08);
                $transfer *= $this->wrapWith === 'paper' ? 0.92 : self::between(0.75, 0.95);
            }
            $this->meat->stay(60, $air + $bias, $transfer, $below, $vapour, $open);
            $this->middle[] = $this->meat->centre();
            $this->probe[] = $this->meat->at($offX, $offY) + $error;
            $this->gauge[] = $air + 1.0 * self::normal();
            if ($this->meat->centre() >= $this->target) {
                $this->done = $t + 60;

                return;
            }
        }
    }

    public function doneByProbe(): ?int
    {
        foreach ($this->probe as $minute => $celsius) {
            if ($celsius >= $this->target) {
                return 60 * ($minute + 1);
            }
        }

        return $this->done;
    }

    /** What of it matters to somebody who looks at a moment (seconds in). */
    public function situation(int $at): string
    {
        $minute = intdiv($at, 60) - 1;
        $now = $this->middle[$minute];
        $pace = $now - $this->middle[max(0, $minute - 30)];

        return match (true) {
            $at < 3600 => 'first hour',
            $this->wrapAt !== null && $at >= $this->wrapAt && $at < $this->wrapAt + 2700 => 'just after a wrap',
            $this->setAt !== null && $at >= $this->setAt && $at < $this->setAt + 2700 => 'just after a set change',
            $this->wrapTemp !== null && ($this->wrapAt === null || $at < $this->wrapAt) => 'a wrap still ahead',
            $now > 60 && $now < 84 && $pace < 1.25 && $this->target > 84 => 'deep stall',
            $now > 60 && $now < 84 && $pace < 3.0 && $this->target > 84 => 'stall',
            default => match ($this->kind) {
                'ribs' => 'ribs',
                'roast', 'beef roast' => 'roasts',
                'turkey', 'chicken', 'duck' => 'poultry',
                default => 'shoulder and brisket',
            },
        };
    }

    /**
     * As it was written down until a moment.
     *
     * @return array<string, mixed> verjuicer-record/1
     */
    public function record(int $until, int $seed): array
    {
        mt_srand($seed);
        $id = 0;
        $events = [];
        $write = static function (int $at, string $type, array $more) use (&$events, &$id): void {
            $events[] = ['id' => 'e'.++$id, 'at' => self::time($at), 'by' => 'QL', 'type' => $type] + $more;
        };
        $write(0, 'cook', ['oven' => 'convection', 'set' => ['f' => $this->setFirst]]);
        $every = self::between(18, 45);
        $hasProbe = mt_rand(0, 1) === 1;
        $readings = $hasProbe ? self::between(8, 18) : $every;
        $more = [];
        $next = static fn (): int => 60 * (int) max(3, $readings * self::between(0.6, 1.4));
        for ($t = 60 * (int) self::between(10, 40); $t <= $until; $t += $next()) {
            if (mt_rand(1, 25) === 1) {
                $t += 60 * mt_rand(60, 150);
                if ($t > $until) {
                    break;
                }
            }
            $celsius = $this->probe[intdiv($t, 60) - 1] + 0.25 * self::normal();
            $more[] = [$t, 'reading', ['temp' => ['f' => round($celsius * 1.8 + 32)], 'piece' => 1, 'spot' => 'core']];
        }
        for ($t = 60 * mt_rand(5, 60); $t <= $until; $t += 60 * mt_rand(30, 120)) {
            $more[] = [$t, 'pit_reading', ['temp' => ['f' => round($this->gauge[intdiv($t, 60) - 1] * 1.8 + 32)]]];
        }
        if ($this->wrapAt !== null && $this->wrapAt <= $until) {
            $more[] = [$this->wrapAt, 'wrap', ['with' => $this->wrapWith]];
        }
        if ($this->setAt !== null && $this->setAt <= $until) {
            $more[] = [$this->setAt, 'pit_set', ['set' => ['f' => $this->setThen]]];
        }
        usort($more, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
        foreach ($more as $one) {
            $write(...$one);
        }
        $plan = [];
        if ($this->wrapTemp !== null && ($this->wrapAt === null || $this->wrapAt > $until)) {
            $plan[] = ['type' => 'wrap', 'temp' => ['f' => $this->wrapTemp], 'with' => $this->wrapWith];
        }
        if ($this->setAt !== null && $this->setAt > $until) {
            $plan[] = ['type' => 'pit_set', 'at' => self::time($this->setAt), 'set' => ['f' => $this->setThen]];
        }

        return self::file($this, $events, $until) + ['plan' => $plan];
    }

    /** @return array<string, mixed> */
    public static function file(self $cook, array $events, int $asOf): array
    {
        return [
            'format' => 'verjuicer-record/1',
            'site' => ['timezone' => 'America/Denver', 'unit' => 'F', 'elevation_m' => 0],
            'rules' => 'us-food-code-2022',
            'as_of' => self::time($asOf),
            'batch' => [
                'code' => 'simulated',
                'product' => [
                    'name' => $cook->name,
                    'animal' => $cook->animal,
                    'form' => $cook->form,
                    'integrity' => 'intact',
                    'raw_weight_kg' => $cook->kg,
                    'pieces' => 1,
                ] + ($cook->isKnownThickness ? ['thickness_mm' => (int) round(2000 * $cook->meat->a)] : []),
                'events' => $events,
            ],
        ];
    }

    public static function time(int $seconds): string
    {
        return gmdate('Y-m-d\TH:i:s\Z', self::BEGUN + $seconds);
    }

    public static function epoch(int $seconds): int
    {
        return self::BEGUN + $seconds;
    }
}
