<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

/**
 * How a sensor logs in at the broker. Both words follow from its secret, so a device needs nothing else; neither lets
 * anybody sign its messages.
 */
final readonly class BrokerLogin
{
    /**
     * @param string $name SHA-256 of the key, in hexadecimal: the end of its topics, too
     * @param string $password SHA-256 of the key followed by "mqtt", in hexadecimal
     */
    public function __construct(public string $name, #[\SensitiveParameter] public string $password)
    {
    }

    /** Of a sensor with this secret, whose key is the SHA-256 of it. */
    public static function of(#[\SensitiveParameter] string $secret): self
    {
        $key = hash('sha256', $secret, true);

        return new self(hash('sha256', $key), hash('sha256', $key.'mqtt'));
    }

    /** A line of mosquitto's password file: PBKDF2 with SHA-512. The password is random: its salt need not be. */
    public function line(): string
    {
        $rounds = 101;
        $salt = substr(hash('sha256', $this->name."\0".$this->password, true), 0, 12);
        $hash = hash_pbkdf2('sha512', $this->password, $salt, $rounds, 64, true);

        return \sprintf('%s:$7$%d$%s$%s', $this->name, $rounds, base64_encode($salt), base64_encode($hash));
    }
}
