<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;
use Verjuicer\App\Site\Site\Site;

/**
 * The Ed25519 key of each site (RFC 8032, by libsodium), in files of the service's own: whoever owns the database alone
 * cannot sign with it.
 */
final readonly class SiteKeys
{
    public function __construct(
        #[Autowire(env: 'resolve:VERJUICER_KEYS')] private string $directory,
        private Filesystem $files,
    ) {
    }

    /** @return string 64 bytes in hexadecimal */
    public function sign(Site $site, string $message): string
    {
        return sodium_bin2hex(sodium_crypto_sign_detached($message, sodium_crypto_sign_secretkey($this->pair($site))));
    }

    /** @return string 32 bytes in hexadecimal: with it anybody checks what was signed */
    public function publicKey(Site $site): string
    {
        return sodium_bin2hex(sodium_crypto_sign_publickey($this->pair($site)));
    }

    public static function holds(string $publicKey, string $message, string $signature): bool
    {
        try {
            [$key, $signed] = [sodium_hex2bin($publicKey), sodium_hex2bin($signature)];

            return $key !== '' && $signed !== '' && sodium_crypto_sign_verify_detached($signed, $message, $key);
        } catch (\SodiumException) {
            return false;
        }
    }

    /** Where something of a site is kept beside its key. */
    public function path(Site $site, string $suffix): string
    {
        return $this->directory.'/'.$site->id->toRfc4122().$suffix;
    }

    /** @return non-empty-string */
    private function pair(Site $site): string
    {
        $path = $this->path($site, '.key');
        if (!is_file($path)) {
            $this->files->mkdir($this->directory, 0o700);
            $made = sodium_bin2hex(sodium_crypto_sign_keypair());
            // Who comes second finds the key of who came first.
            $handle = @fopen($path, 'x');
            if ($handle !== false) {
                chmod($path, 0o600);
                fwrite($handle, $made);
                fclose($handle);
            }
        }
        $pair = sodium_hex2bin(trim((string) file_get_contents($path)));
        \assert($pair !== '', 'a key was written there');

        return $pair;
    }
}
