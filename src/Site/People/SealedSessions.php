<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/**
 * Encrypts sessions, so that access to the database alone neither reads nor forges one. A row is named by a digest of
 * the session id, and encrypted with a key derived from that id and APP_SECRET.
 */
final readonly class SealedSessions implements \SessionHandlerInterface, \SessionUpdateTimestampHandlerInterface
{
    private const NONCE = \SODIUM_CRYPTO_SECRETBOX_NONCEBYTES;

    private string $key;

    public function __construct(
        private PdoSessionHandler $rows,
        #[Autowire('%kernel.secret%')]
        #[\SensitiveParameter]
        string $secret,
    ) {
        $this->key = hash_hmac('sha256', 'verjuicer sessions', $secret, true);
    }

    public function open(string $path, string $name): bool
    {
        return $this->rows->open($path, $name);
    }

    public function close(): bool
    {
        return $this->rows->close();
    }

    /** Empty if it is missing or was not sealed here for this id: the person has to log in again. */
    public function read(#[\SensitiveParameter] string $id): string
    {
        $sealed = (string) $this->rows->read($this->name($id));
        if (\strlen($sealed) < self::NONCE) {
            return '';
        }
        $data = sodium_crypto_secretbox_open(
            substr($sealed, self::NONCE),
            substr($sealed, 0, self::NONCE),
            $this->keyOf($id),
        );

        return $data === false ? '' : $data;
    }

    public function write(#[\SensitiveParameter] string $id, string $data): bool
    {
        $nonce = random_bytes(self::NONCE);

        return $this->rows->write($this->name($id), $nonce.sodium_crypto_secretbox($data, $nonce, $this->keyOf($id)));
    }

    public function destroy(#[\SensitiveParameter] string $id): bool
    {
        return $this->rows->destroy($this->name($id));
    }

    public function gc(int $max_lifetime): int|false
    {
        return $this->rows->gc($max_lifetime);
    }

    public function validateId(#[\SensitiveParameter] string $id): bool
    {
        return $this->rows->validateId($this->name($id));
    }

    public function updateTimestamp(#[\SensitiveParameter] string $id, string $data): bool
    {
        return $this->rows->updateTimestamp($this->name($id), $data);
    }

    private function name(string $id): string
    {
        return hash_hmac('sha256', $id, $this->key);
    }

    private function keyOf(string $id): string
    {
        return sodium_crypto_generichash($id, $this->key, \SODIUM_CRYPTO_SECRETBOX_KEYBYTES);
    }
}
