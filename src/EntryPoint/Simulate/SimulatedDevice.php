<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Verjuicer\App\Operations\Probe\BrokerLogin;
use Verjuicer\App\Operations\Probe\SignedMessage;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttLost;

/** A simulated sensor: it counts, stores unsent readings, and sends like a real one. */
final class SimulatedDevice
{
    private const AT_ONCE = 900;

    private int $sequence;
    /** @var list<array<string, mixed>> unsent readings */
    private array $waits = [];

    /**
     * @param int $sequence from which it counts on
     * @param Broker|null $broker where it publishes; null where it sends over HTTP
     */
    public function __construct(
        private readonly SiteClient $site,
        private readonly string $secret,
        int $sequence,
        private readonly ?Broker $broker = null,
    ) {
        $this->sequence = $sequence;
    }

    /**
     * @param array<int, float|null> $reads °F by channel; null where nothing is plugged in
     * @param int $off seconds its clock is ahead
     */
    public function read(array $reads, int $now, int $off): void
    {
        ++$this->sequence;
        foreach ($reads as $channel => $degrees) {
            $this->waits[] = [
                'channel' => $channel,
                'sequence' => $this->sequence,
                'at' => gmdate('Y-m-d\TH:i:s\Z', $now + $off),
            ] + ($degrees === null ? ['unplugged' => true] : ['temp' => ['f' => round($degrees, 1)]]);
        }
    }

    public function send(int $now, int $off): void
    {
        while ($this->waits !== []) {
            $this->handOver([
                'sent_at' => gmdate('Y-m-d\TH:i:s\Z', $now + $off),
                'battery_percent' => 80,
                'readings' => \array_slice($this->waits, 0, self::AT_ONCE),
            ]);
            $this->waits = \array_slice($this->waits, self::AT_ONCE);
        }
    }

    /** @param array<string, mixed> $body */
    private function handOver(array $body): void
    {
        try {
            $message = SignedMessage::of($this->secret, json_encode($body, \JSON_THROW_ON_ERROR));
            $login = BrokerLogin::of($this->secret);
            $this->broker
                ?->connect('played-'.substr($message->keyId, 0, 12), $login->name, $login->password)
                ->publish($message->topic(), $message->payload());
        } catch (MqttLost) {
            $this->site->send($body, $this->secret);

            return;
        }
        if ($this->broker === null) {
            $this->site->send($body, $this->secret);
        }
    }
}
