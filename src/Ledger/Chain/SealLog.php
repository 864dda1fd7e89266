<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/**
 * Signed seals in a file beside the key, outside the database: what the chain came to, when. A chain that was cut
 * short, emptied or made anew is none that these seals are of.
 */
final readonly class SealLog
{
    /** Seconds between two seals at the least. */
    private const EVERY = 60;

    public function __construct(private SiteChain $chain, private SiteKeys $keys, private Now $now)
    {
    }

    /** Writes down what the chain comes to now, where that is anything new, and long enough after the last. */
    public function note(Site $site): void
    {
        $last = $this->all($site)[0] ?? null;
        $now = $this->now->instant()->epoch;
        $seal = $this->chain->seal($site);
        if ($seal === null) {
            return;
        }
        if ($last !== null && ($seal->position <= $last->position || $now - $last->at < self::EVERY)) {
            return;
        }
        $signed = SignedSeal::of($site, $seal, $now, $this->keys);
        file_put_contents($this->keys->path($site, '.seals'), $signed->line()."\n", \FILE_APPEND | \LOCK_EX);
    }

    /** The first seal that the chain does not come to any more, or that nobody with the key made. */
    public function firstBroken(Site $site): ?SignedSeal
    {
        foreach (array_reverse($this->all($site)) as $seal) {
            $isSigned = SiteKeys::holds($this->keys->publicKey($site), $seal->message(), $seal->signature);
            if (!$isSigned || $this->chain->at($site, $seal->position)?->digest !== $seal->digest) {
                return $seal;
            }
        }

        return null;
    }

    /** @return list<SignedSeal> the latest first */
    public function all(Site $site): array
    {
        $path = $this->keys->path($site, '.seals');
        $seals = [];
        $lines = is_file($path) ? file($path, \FILE_IGNORE_NEW_LINES) : [];
        foreach ($lines === false ? [] : $lines as $line) {
            $seal = SignedSeal::read($line);
            if ($seal !== null) {
                $seals[] = $seal;
            }
        }

        return array_reverse($seals);
    }
}
