<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/** A control packet of MQTT 3.1.1 (2.2). */
final readonly class MqttPacket
{
    /** @param int $length of all of it, in bytes */
    private function __construct(public int $type, public int $flags, public string $body, public int $length)
    {
    }

    /**
     * The first packet in the received bytes.
     *
     * @return self|null null where not all of it is there yet
     *
     * @throws MqttLost if it is no packet
     */
    public static function first(string $bytes): ?self
    {
        $length = 0;
        for ($place = 1; $place <= 4; ++$place) {
            if (!isset($bytes[$place])) {
                return null;
            }
            $byte = \ord($bytes[$place]);
            $length |= ($byte & 0x7F) << 7 * ($place - 1);
            if ($byte < 0x80) {
                $whole = $place + 1 + $length;
                $first = \ord($bytes[0]);

                return \strlen($bytes) < $whole
                    ? null
                    : new self($first >> 4, $first & 0x0F, substr($bytes, $place + 1, $length), $whole);
            }
        }
        throw new MqttLost('what the broker sends is no packet');
    }
}
