<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

/**
 * What a sensor publishes over MQTT: whoever hears it learns no secret, and nobody else can have made it.
 *
 * Topic `verjuicer/1/sensors/KEY_ID`, payload `{"body": "…", "mac": "…"}`: `body` is the JSON that HTTP takes, as text;
 * `mac` is its HMAC-SHA-256 with the SHA-256 of the secret; KEY_ID is the SHA-256 of that key; all in hexadecimal.
 */
final readonly class SignedMessage
{
    public const TOPIC = 'verjuicer/1/sensors/';

    private function __construct(public string $keyId, public string $body, public string $mac)
    {
    }

    public static function of(string $secret, string $body): self
    {
        $key = hash('sha256', $secret, true);

        return new self(hash('sha256', $key), $body, hash_hmac('sha256', $body, $key));
    }

    /** @return self|null null where it is of another shape */
    public static function read(string $topic, string $payload): ?self
    {
        $data = str_starts_with($topic, self::TOPIC) ? json_decode($payload) : null;

        return $data instanceof \stdClass && \is_string($data->body ?? null) && \is_string($data->mac ?? null)
            ? new self(substr($topic, \strlen(self::TOPIC)), $data->body, $data->mac)
            : null;
    }

    public function topic(): string
    {
        return self::TOPIC.$this->keyId;
    }

    public function payload(): string
    {
        return json_encode(['body' => $this->body, 'mac' => $this->mac], \JSON_THROW_ON_ERROR);
    }
}
