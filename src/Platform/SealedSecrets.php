<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform;

use Symfony\Component\DependencyInjection\Attribute\Autowire;

/**
 * Secrets that the application has to read again, encrypted at rest with a key that is not in the database: it is
 * derived from APP_SECRET. Who has a copy of the database alone reads none of them.
 */
final readonly class SealedSecrets
{
    private const MARK = 'sealed1:';
    private string $key;

    public function __construct(#[Autowire('%kernel.secret%')] #[\SensitiveParameter] string $secret)
    {
        $this->key = hash_hkdf('sha256', $secret, \SODIUM_CRYPTO_SECRETBOX_KEYBYTES, 'verjuicer second factor');
    }

    public function sealed(#[\SensitiveParameter] string $secret): string
    {
        $nonce = random_bytes(\SODIUM_CRYPTO_SECRETBOX_NONCEBYTES);

        return self::MARK.base64_encode($nonce.sodium_crypto_secretbox($secret, $nonce, $this->key));
    }

    /** @return string the secret; empty where it was sealed with another key; as it is where it was never sealed */
    public function opened(string $stored): string
    {
        if (!self::isSealed($stored)) {
            return $stored;
        }
        $bytes = (string) base64_decode(substr($stored, \strlen(self::MARK)), true);
        if (\strlen($bytes) < \SODIUM_CRYPTO_SECRETBOX_NONCEBYTES) {
            return '';
        }
        $nonce = substr($bytes, 0, \SODIUM_CRYPTO_SECRETBOX_NONCEBYTES);
        $opened = sodium_crypto_secretbox_open(substr($bytes, \strlen($nonce)), $nonce, $this->key);

        return $opened === false ? '' : $opened;
    }

    public static function isSealed(string $stored): bool
    {
        return str_starts_with($stored, self::MARK);
    }
}
