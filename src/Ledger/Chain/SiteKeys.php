<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;

/**
 * The Ed25519 keys of each site (RFC 8032, by libsodium), in files of the service: the owner of the database alone
 * cannot sign. Only the public half of a past key stays.
 */
final readonly class SiteKeys
{
    public function __construct(
        #[Autowire(env: 'resolve:VERJUICER_KEYS')] private string $directory,
        private Filesystem $files,
        private Connection $connection,
    ) {
    }

    /**
     * @return string 64 bytes in hexadecimal
     *
     * @throws KeyMissing if the chain names a key, and the one of this node is another or not there
     */
    public function sign(Site $site, string $message): string
    {
        $named = $this->named($site);
        if ($named !== null && (!$this->isThere($site) || self::publicOf($this->pair($site)) !== $named)) {
            throw KeyMissing::of($site);
        }

        return self::signedBy($this->pair($site), $message);
    }

    /** The key that the chain names last; null before the first. */
    private function named(Site $site): ?string
    {
        $named = $this->connection->fetchOne(
            'SELECT public_key FROM site_key WHERE site_id = ? ORDER BY seq DESC LIMIT 1',
            [$site->id->toRfc4122()],
        );

        return \is_string($named) ? $named : null;
    }

    /** @return string 32 bytes in hexadecimal: it verifies signatures of the site */
    public function publicKey(Site $site): string
    {
        return self::publicOf($this->pair($site));
    }

    /** @return non-empty-list<string> the public halves of all keys there were, the present one last */
    public function publicKeys(Site $site): array
    {
        $present = $this->publicKey($site);
        $path = $this->path($site, '.pub');
        $past = is_file($path) ? file($path, \FILE_IGNORE_NEW_LINES | \FILE_SKIP_EMPTY_LINES) : [];

        return [...array_values(array_diff($past === false ? [] : $past, [$present])), $present];
    }

    /**
     * Makes a new key, signs it with the present one, and deletes the present private half after `$keep` has stored the
     * change.
     *
     * @param \Closure(string, string, string): void $keep previous public key, new public key, signature of the
     *     previous one (`Statement::key`)
     */
    public function rotate(Site $site, \Closure $keep): void
    {
        $before = $this->pair($site);
        $new = sodium_crypto_sign_keypair();
        $change = Statement::key($site->id->toRfc4122(), self::publicOf($before), self::publicOf($new));
        $keep(self::publicOf($before), self::publicOf($new), self::signedBy($before, $change));
        file_put_contents($this->path($site, '.pub'), self::publicOf($before)."\n", \FILE_APPEND | \LOCK_EX);
        $this->files->dumpFile($this->path($site, '.key'), sodium_bin2hex($new));
        $this->files->chmod($this->path($site, '.key'), 0o600);
    }

    /** Whether there is a key of it; asking makes none. */
    public function isThere(Site $site): bool
    {
        return is_file($this->path($site, '.key'));
    }

    /** @return list<string> ids of sites whose keys or seals are kept, and that are not among these */
    public function withoutTheirSite(Site ...$sites): array
    {
        $known = array_map(static fn (Site $one): string => $one->id->toRfc4122(), $sites);
        $kept = [];
        foreach (is_dir($this->directory) ? new \FilesystemIterator($this->directory) : [] as $file) {
            \assert($file instanceof \SplFileInfo);
            if (preg_match('/^([0-9a-f-]{36})\.(key|pub|seals)$/D', $file->getFilename(), $id) === 1) {
                $kept[$id[1]] = true;
            }
        }

        return array_values(array_diff(array_map(strval(...), array_keys($kept)), $known));
    }

    /** Path of a file of the site with its key. */
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

    /** @param non-empty-string $pair */
    private static function publicOf(string $pair): string
    {
        return sodium_bin2hex(sodium_crypto_sign_publickey($pair));
    }

    /** @param non-empty-string $pair */
    private static function signedBy(string $pair, string $message): string
    {
        return sodium_bin2hex(sodium_crypto_sign_detached($message, sodium_crypto_sign_secretkey($pair)));
    }
}
