<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Sensor;

use Verjuicer\Core\Measure\Instant;

/** A device that measures and sends by itself: a probe, a sensor of a pit or a walk-in, a logger with several plugs. */
final readonly class Sensor
{
    /** Percent below which a battery is low. */
    public const BATTERY_LOW = 15;
    /** Seconds its clock may be off before it is named. */
    public const SKEW = 30;

    /**
     * @param int|null $skewSeconds added to its times to get ours; null if it never sent its clock
     * @param list<SensorChannel> $channels by number
     */
    public function __construct(
        public string $id,
        public string $siteId,
        public string $name,
        public Instant $registeredAt,
        public string $registeredBy,
        public ?Instant $revokedAt,
        public ?Instant $seenAt,
        public ?int $skewSeconds,
        public ?int $batteryPercent,
        public array $channels,
    ) {
    }

    public function channel(int $number): ?SensorChannel
    {
        foreach ($this->channels as $channel) {
            if ($channel->number === $number) {
                return $channel;
            }
        }

        return null;
    }

    public function isBatteryLow(): bool
    {
        return $this->batteryPercent !== null && $this->batteryPercent < self::BATTERY_LOW;
    }

    public function hasWrongClock(): bool
    {
        return $this->skewSeconds !== null && abs($this->skewSeconds) >= self::SKEW;
    }
}
