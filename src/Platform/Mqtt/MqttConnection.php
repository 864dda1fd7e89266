<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/**
 * The part of MQTT 3.1.1 (OASIS, 29 October 2014) needed here: publishing and receiving at least once, where a message
 * is acknowledged only after it is stored (4.3.2). mosquitto_sub cannot do that, and no library is available.
 */
final class MqttConnection
{
    private const CONNECT = 1;
    private const CONNACK = 2;
    private const PUBLISH = 3;
    private const PUBACK = 4;
    private const SUBSCRIBE = 8;
    private const SUBACK = 9;
    private const PINGREQ = 12;
    /** Seconds without a word after which the broker takes it for gone (3.1.2.10). */
    private const KEEP_ALIVE = 30;

    /** @var resource */
    private $stream;
    private string $buffer = '';
    /** @var list<MqttPacket> messages that arrived before an expected answer: a broker sends stored ones immediately */
    private array $early = [];
    private int $saidAt;

    /**
     * @param string $address "tcp://127.0.0.1:1883", or "tls://…"
     * @param string $client its name: the broker stores its messages while it is away
     *
     * @throws MqttLost if the broker does not answer, or refuses it
     */
    public function __construct(
        string $address,
        string $client,
        ?string $user = null,
        #[\SensitiveParameter] ?string $password = null,
    ) {
        $stream = @stream_socket_client($address, $code, $problem, 5);
        if ($stream === false) {
            throw new MqttLost((string) $problem === '' ? 'no answer' : (string) $problem);
        }
        $this->stream = $stream;
        stream_set_timeout($stream, 5);
        $this->saidAt = time();
        // Not a clean session: 3.1.2.4.
        $flags = ($user === null ? 0 : 0x80) | ($password === null ? 0 : 0x40);
        $this->send(
            self::CONNECT,
            0,
            self::text('MQTT').\chr(4).\chr($flags).pack('n', self::KEEP_ALIVE).self::text($client)
            .($user === null ? '' : self::text($user)).($password === null ? '' : self::text($password)),
        );
        $answer = $this->await(self::CONNACK);
        if (($answer[1] ?? "\xff") !== "\0") {
            throw new MqttLost('the broker refuses it: return code '.\ord($answer[1] ?? "\xff"));
        }
    }

    /** @throws MqttLost if the broker refuses it */
    public function subscribe(string $topic): void
    {
        $this->send(self::SUBSCRIBE, 2, pack('n', 1).self::text($topic).\chr(1));
        $answer = $this->await(self::SUBACK);
        if (($answer[2] ?? "\x80") === "\x80") {
            throw new MqttLost('the broker does not let it hear '.$topic);
        }
    }

    /**
     * Publishes at least once: returns when the broker has it.
     *
     * @throws MqttLost if it does not say so
     */
    public function publish(string $topic, string $payload): void
    {
        $this->send(self::PUBLISH, 2, self::text($topic).pack('n', 1).$payload);
        $this->await(self::PUBACK);
    }

    /** Publishes at most once without waiting: a lost answer does no harm. */
    public function tell(string $topic, string $payload): void
    {
        $this->send(self::PUBLISH, 0, self::text($topic).$payload);
    }

    /**
     * Passes on each message that arrives within some seconds, and acknowledges it once handled; after an exception it
     * comes again.
     *
     * @param \Closure(MqttMessage): void $take
     *
     * @throws MqttLost if the connection ends
     * @throws \Exception from the handler
     */
    public function listen(int $seconds, \Closure $take): void
    {
        $until = microtime(true) + $seconds;
        while (($left = $until - microtime(true)) > 0) {
            $packet = array_shift($this->early) ?? $this->next($left);
            if ($packet !== null && $packet->type === self::PUBLISH) {
                $this->deal($packet, $take);
            }
        }
        if (time() - $this->saidAt >= intdiv(self::KEEP_ALIVE, 2)) {
            $this->send(self::PINGREQ, 0, '');
        }
    }

    /** @param \Closure(MqttMessage): void $take */
    private function deal(MqttPacket $packet, \Closure $take): void
    {
        $length = self::whole($packet->body);
        $topic = substr($packet->body, 2, $length);
        $isAtLeastOnce = ($packet->flags >> 1 & 3) > 0;
        $take(new MqttMessage($topic, substr($packet->body, 2 + $length + ($isAtLeastOnce ? 2 : 0))));
        if ($isAtLeastOnce) {
            $this->send(self::PUBACK, 0, substr($packet->body, 2 + $length, 2));
        }
    }

    private function await(int $type): string
    {
        for ($tries = 0; $tries < 50; ++$tries) {
            $packet = $this->next(5.0);
            if ($packet?->type === $type) {
                return $packet->body;
            }
            if ($packet?->type === self::PUBLISH) {
                $this->early[] = $packet;
            }
        }
        throw new MqttLost('no answer');
    }

    /** The next packet; null where none comes in so many seconds. */
    private function next(float $seconds): ?MqttPacket
    {
        $until = microtime(true) + $seconds;
        while (true) {
            $packet = MqttPacket::first($this->buffer);
            if ($packet !== null) {
                $this->buffer = substr($this->buffer, $packet->length);

                return $packet;
            }
            $left = max(0.0, $until - microtime(true));
            $read = [$this->stream];
            $none = null;
            if (@stream_select($read, $none, $none, (int) $left, (int) (1e6 * fmod($left, 1.0))) === 0) {
                return null;
            }
            $more = fread($this->stream, 65_536);
            if ($more === false || ($more === '' && feof($this->stream))) {
                throw new MqttLost('the connection ended');
            }
            $this->buffer .= $more;
        }
    }

    private function send(int $type, int $flags, string $body): void
    {
        $packet = \chr($type << 4 | $flags).self::length(\strlen($body)).$body;
        for ($sent = 0; $sent < \strlen($packet); $sent += $more) {
            $more = @fwrite($this->stream, substr($packet, $sent));
            if ($more === false || $more === 0) {
                throw new MqttLost('the connection ended');
            }
        }
        $this->saidAt = time();
    }

    private static function text(string $text): string
    {
        return pack('n', \strlen($text)).$text;
    }

    /** The remaining length as 2.2.3 writes it: seven bits a byte. */
    private static function length(int $length): string
    {
        $written = '';
        do {
            $byte = $length & 0x7F;
            $length >>= 7;
            $written .= \chr($length > 0 ? $byte | 0x80 : $byte);
        } while ($length > 0);

        return $written;
    }

    private static function whole(string $bytes): int
    {
        return \ord($bytes[0] ?? "\0") << 8 | \ord($bytes[1] ?? "\0");
    }
}
