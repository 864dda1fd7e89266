<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

/** The state of a simulated kitchen: the air of pits and rooms, and the meat of every batch on the board. */
final class World
{
    /** @var array<string, Meat> by the id of its batch */
    public array $meats = [];
    /** @var array<string, int> by the id of its batch */
    public array $tags = [];
    /** @var array<string, string> the pit each is on the heat in, by the id of its batch */
    public array $pits = [];
    /** The batch that the probe L1-1 is in. */
    public ?string $probed = null;
    /** @var array<string, Air> by name */
    public array $air;

    public function __construct(private readonly SiteClient $site, private readonly string $token)
    {
        $this->air = [
            'Drum' => new Air(121.0, 121.0, 14.0),
            'Offset' => new Air(135.0, 135.0, 18.0),
            'Oven' => new Air(149.0, 149.0, 8.0),
            'walk-in' => new Air(2.6, 2.6, 25.0),
        ];
    }

    /** Follows the board: new batches appear, ended ones go, moved ones move. */
    public function look(int $now): void
    {
        $answer = $this->site->read('/api/v1/batches?open=1', $this->token);
        $open = [];
        foreach (\is_array($answer['batches'] ?? null) ? $answer['batches'] : [] as $batch) {
            if (\is_array($batch) && \is_string($batch['id'] ?? null) && \is_int($batch['tag'] ?? null)) {
                $open[$batch['id']] = true;
                $this->tags[$batch['id']] = $batch['tag'];
                $this->follow($batch['id'], \is_string($batch['stage'] ?? null) ? $batch['stage'] : '', $now);
            }
        }
        $this->meats = array_intersect_key($this->meats, $open);
    }

    /** @param list<SimulatedFault> $faults */
    public function step(float $seconds, int $now, array $faults): void
    {
        foreach ($this->air as $name => $air) {
            $isRoom = $name === 'walk-in';
            [$towards, $minutes] = [$air->set, $air->minutes];
            foreach ($faults as $fault) {
                if ($fault->isOn($now) && $fault->isOf($name)) {
                    [$towards, $minutes] = match ($fault->name) {
                        SimulatedFaultName::DeadOven => $isRoom ? [$towards, $minutes] : [20.0, 35.0],
                        SimulatedFaultName::FuelOut => $isRoom ? [$towards, $minutes] : [50.0, 30.0],
                        SimulatedFaultName::PowerCut => [20.0, $isRoom ? 240.0 : 35.0],
                        SimulatedFaultName::DoorOpen => $isRoom ? [16.0, 12.0] : [60.0, 6.0],
                        default => [$towards, $minutes],
                    };
                }
            }
            $air->step($seconds, $towards, $minutes);
        }
        foreach ($this->meats as $id => $meat) {
            $meat->step($seconds, $this->around($id, $meat));
        }
    }

    /** The meat that the probe L1-1 is in; null if it is in none. */
    public function probed(): ?Meat
    {
        return $this->meats[$this->probed] ?? null;
    }

    /** °F of the air of a place. */
    public function air(string $name): float
    {
        return 32.0 + 1.8 * ($this->air[$name]->celsius ?? 20.0);
    }

    private function around(string $id, Meat $meat): float
    {
        return match ($meat->stage) {
            'cook' => $this->air[$this->pits[$id] ?? 'Drum']->celsius ?? 121.0,
            'reheat' => 190.0,
            'rest' => 45.0,
            'hot_hold' => 70.0,
            // As quick as an ice bath or a blast chiller: the crew of the demo cools by one of these.
            'cool' => -15.0,
            'cold_hold', 'received', 'thaw' => $this->air['walk-in']->celsius,
            'freeze' => -18.0,
            default => 21.0,
        };
    }

    /** At the place in its record; meat that is new here continues from its last reading. */
    private function follow(string $id, string $stage, int $now): void
    {
        $meat = $this->meats[$id] ?? null;
        if ($meat !== null && $meat->stage === $stage) {
            return;
        }
        $record = $this->site->read("/api/v1/batches/$id/record", $this->token);
        $batch = \is_array($record['batch'] ?? null) ? $record['batch'] : [];
        $events = \is_array($batch['events'] ?? null) ? $batch['events'] : [];
        $since = 0;
        $read = $readAt = null;
        $tracks = [];
        foreach ($events as $event) {
            if (!\is_array($event) || !\is_string($event['type'] ?? null) || !\is_string($event['at'] ?? null)) {
                continue;
            }
            if ($event['type'] === $stage) {
                $since = (int) strtotime($event['at']);
                $tracks = [];
                $this->pits[$id] = \is_string($event['pit'] ?? null) ? $event['pit'] : $this->pits[$id] ?? 'Drum';
            }
            $temp = \is_array($event['temp'] ?? null) ? $event['temp'] : [];
            if ($event['type'] === 'reading' && is_numeric($temp['f'] ?? null)) {
                $read = (float) $temp['f'];
                $readAt = (int) strtotime($event['at']);
                $piece = \is_int($event['piece'] ?? null) ? $event['piece'] : 1;
                $tracks[$piece] = \is_string($event['spot'] ?? null) ? $event['spot'] : 'core';
            }
        }
        if ($meat !== null) {
            $meat->stage = $stage;
            $meat->stageSince = $since;

            return;
        }
        $product = \is_array($batch['product'] ?? null) ? $batch['product'] : [];
        $kg = is_numeric($product['raw_weight_kg'] ?? null) ? (float) $product['raw_weight_kg'] : 2.0;
        // A little over half the thickness of a ball of the weight: meat is flatter.
        $half = 0.55 * (3.0 * $kg / (4.0 * \M_PI * 1050.0)) ** (1.0 / 3.0);
        $core = (($read ?? 40.0) - 32.0) / 1.8;
        $this->meats[$id] = Meat::underWay(
            $core,
            $half,
            $stage,
            $since,
            $tracks === [] ? [1 => 'core'] : $tracks,
            $readAt === null ? 0 : max(0, $now - max($since, $readAt)),
            fn (Meat $one): float => $this->around($id, $one),
        );
    }
}
