<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Random\Randomizer;
use Symfony\Component\Clock\ClockInterface;

/** The sensors of a simulated kitchen. They read on time however slow the server is, and send stored readings later. */
final class SimulatedSensors
{
    /** Seconds of the kitchen between two readings. */
    public const EVERY = 10;

    private int $readAt;

    /**
     * @param array<int|string, SimulatedDevice> $devices by name
     * @param list<SimulatedFault> $faults
     */
    public function __construct(
        private readonly World $world,
        private readonly array $devices,
        private readonly array $faults,
        private readonly Randomizer $random,
        private readonly ClockInterface $clock,
    ) {
        $this->readAt = $clock->now()->getTimestamp();
    }

    /** Lets the kitchen go on until now, takes each reading that was due, and sends them. */
    public function catchUp(): void
    {
        $now = $this->clock->now()->getTimestamp();
        $isDue = $now - $this->readAt >= self::EVERY;
        while ($now - $this->readAt >= self::EVERY) {
            $this->readAt += self::EVERY;
            $this->world->step(self::EVERY, $this->readAt, $this->faults);
            if (!$this->isOn(SimulatedFaultName::PowerCut, $this->readAt)) {
                foreach ($this->devices as $name => $device) {
                    $device->read($this->reads((string) $name), $this->readAt, $this->clockError((string) $name));
                }
            }
        }
        if (!$isDue || $this->isOn(SimulatedFaultName::PowerCut, $now)) {
            return;
        }
        foreach ($this->devices as $name => $device) {
            if (!$this->isOn(SimulatedFaultName::NetworkGone, $now, (string) $name)) {
                $device->send($now, $this->clockError((string) $name));
            }
        }
    }

    /** @return array<int, float|null> °F by channel; null where nothing is plugged in */
    private function reads(string $name): array
    {
        $noise = fn (): float => $this->random->getInt(-2, 2) / 10;
        $core = $this->world->probed()?->core();
        $reads = $name === 'L1'
            ? [
                1 => $core === null ? null : $core + $noise(),
                2 => $this->world->air('Drum') + 3 * $noise(),
                3 => $this->world->air('Offset') + 3 * $noise(),
            ]
            : [1 => $this->world->air('walk-in') + $noise()];
        foreach (array_keys($reads) as $channel) {
            if ($this->isOn(SimulatedFaultName::ProbeOut, $this->readAt, "$name-$channel")) {
                $reads[$channel] = null;
            }
        }

        return $reads;
    }

    /** @return int seconds that the clock of a sensor is ahead */
    private function clockError(string $name): int
    {
        return $this->isOn(SimulatedFaultName::WrongClock, $this->readAt, $name) ? 3600 : 0;
    }

    /** Whether a fault is on: of all sensors, or of the one that was named. */
    private function isOn(SimulatedFaultName $name, int $now, string $what = ''): bool
    {
        return SimulatedFault::isAnyOn($this->faults, $name, $now, $what);
    }
}
