<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform;

use Symfony\Component\Clock\ClockInterface;

/** A clock that runs faster than it is, for a kitchen that is played: PLAYED_CLOCK="REAL,PLAYED,SPEED", in seconds. */
final readonly class SimulatedClock implements ClockInterface
{
    private function __construct(
        private float $real,
        private float $played,
        private float $speed,
        private \DateTimeZone $zone,
    ) {
    }

    /** @param string $said as the environment has it; null where it says nothing */
    public static function of(string $said): ?self
    {
        return preg_match('/^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/D', $said, $part) === 1
            ? new self((float) $part[1], (float) $part[2], (float) $part[3], new \DateTimeZone('UTC'))
            : null;
    }

    public function now(): \DateTimeImmutable
    {
        $at = $this->played + $this->speed * (microtime(true) - $this->real);

        return (new \DateTimeImmutable('@'.(int) $at))->setTimezone($this->zone);
    }

    public function sleep(float|int $seconds): void
    {
        usleep((int) (1e6 * $seconds / max(1.0, $this->speed)));
    }

    public function withTimeZone(\DateTimeZone|string $timezone): static
    {
        return new self(
            $this->real,
            $this->played,
            $this->speed,
            \is_string($timezone) ? new \DateTimeZone($timezone) : $timezone,
        );
    }
}
