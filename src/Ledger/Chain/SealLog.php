<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Symfony\Component\Filesystem\Filesystem;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;

/**
 * Signed seals in files with the key, outside the database: the digest of the chain over time. A shortened, emptied or
 * remade chain does not match them. The newest covers everything (`.head`); one every ten minutes stays (`.seals`).
 */
final readonly class SealLog
{
    /** Seconds between two seals that stay, at the least. */
    private const EVERY = 600;

    private const AT_ONCE = 1000;

    /** A line of a seal is shorter. */
    private const TAIL_BYTES = 512;

    public function __construct(
        private SiteChain $chain,
        private SiteKeys $keys,
        private Filesystem $files,
        private Now $now,
    ) {
    }

    /** Seals the present end of the chain, if it is new. */
    public function note(Site $site): void
    {
        $seal = $this->chain->seal($site);
        $head = $this->newest($site);
        if ($seal === null || ($head !== null && $seal->position === $head->position)) {
            return;
        }
        if ($head !== null && $this->chain->at($site, $head->position)?->digest !== $head->digest) {
            // It was not added to, but altered: that must still be found once it has gone on.
            $this->add($site, $head);
        }
        $signed = $this->sign($site, $seal);
        $this->files->dumpFile($this->keys->path($site, '.head'), $signed->line()."\n");
        $last = SignedSeal::read($this->lastLine($site));
        if ($last === null || $signed->at - $last->at >= self::EVERY) {
            $this->add($site, $signed);
        }
    }

    public function sign(Site $site, Seal $seal): SignedSeal
    {
        return SignedSeal::of($site, $seal, $this->now->instant()->epoch, $this->keys);
    }

    /**
     * The first seal that the chain does not match, or that no key of the site made.
     *
     * @param list<SignedSeal> $seals
     */
    public function firstBroken(Site $site, array $seals): ?SignedSeal
    {
        $keys = $this->keys->publicKeys($site);
        foreach (array_chunk($seals, self::AT_ONCE) as $some) {
            $digests = $this->chain->digests($site, array_column($some, 'position'));
            foreach ($some as $seal) {
                $of = array_filter(
                    $keys,
                    static fn (string $key): bool => Statement::isSignedBy($key, $seal->message(), $seal->signature),
                );
                if ($of === [] || ($digests[$seal->position] ?? null) !== $seal->digest) {
                    return $seal;
                }
            }
        }

        return null;
    }

    /** @return list<SignedSeal> the latest first */
    public function all(Site $site): array
    {
        $seals = self::read($this->keys->path($site, '.seals'));
        $head = $this->newest($site);
        if ($head !== null && ($seals === [] || end($seals)->position !== $head->position)) {
            $seals[] = $head;
        }

        return array_reverse($seals);
    }

    /** @return list<SignedSeal> seals of a file, in order */
    public static function read(string $path): array
    {
        $lines = is_file($path) ? file($path, \FILE_IGNORE_NEW_LINES) : [];

        return array_values(array_filter(array_map(SignedSeal::read(...), $lines === false ? [] : $lines)));
    }

    /** Of everything at the time it was made: reading never signs. */
    public function newest(Site $site): ?SignedSeal
    {
        return self::read($this->keys->path($site, '.head'))[0] ?? null;
    }

    private function add(Site $site, SignedSeal $seal): void
    {
        file_put_contents($this->keys->path($site, '.seals'), $seal->line()."\n", \FILE_APPEND | \LOCK_EX);
    }

    private function lastLine(Site $site): string
    {
        $path = $this->keys->path($site, '.seals');
        $end = is_file($path)
            ? file_get_contents($path, offset: max(0, (int) filesize($path) - self::TAIL_BYTES))
            : '';
        $lines = explode("\n", trim((string) $end));

        return end($lines);
    }
}
