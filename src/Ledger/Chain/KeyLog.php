<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/** Which keys a site sealed with, in the chain: each but the first is vouched for by the one before it. */
final readonly class KeyLog
{
    public function __construct(private Connection $connection, private SiteKeys $keys, private Now $now)
    {
    }

    /** @return list<KeyChange> the present key last */
    public function of(Site $site): array
    {
        /**
         * @var list<array{public_key: string, before_key: string|null, vouched: string, reason: string,
         *     position: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT k.public_key, k.before_key, k.vouched, k.reason, l.position FROM site_key k '
            ."JOIN chain_link l ON l.kind = 'site_key' AND l.row_id = k.id WHERE k.site_id = ? ORDER BY k.seq",
            [$site->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): KeyChange => new KeyChange(
                $site->id->toRfc4122(),
                $row['public_key'],
                $row['before_key'],
                $row['vouched'],
                $row['reason'],
                $row['position'],
            ),
            $rows,
        );
    }

    /** Whether the keys in the folder are the last ones of the chain, each vouched for or explained. */
    public function holds(Site $site): bool
    {
        $chained = array_column($this->of($site), 'publicKey');
        if (!$this->keys->isThere($site)) {
            // A copy of a site, for example: this machine never signed any of its records.
            return $chained === [] && !$this->isAnythingRecorded($site);
        }
        $kept = $this->keys->publicKeys($site);
        if ($chained === []) {
            // The first seal is made after the key stands in the chain.
            return !is_file($this->keys->path($site, '.seals'));
        }
        foreach ($this->of($site) as $change) {
            if (!$change->isVouchedFor() && $change->reason === '') {
                return false;
            }
        }

        return \array_slice($chained, -\count($kept)) === \array_slice($kept, -\count($chained));
    }

    private function isAnythingRecorded(Site $site): bool
    {
        return $this->connection->fetchOne(
            'SELECT 1 FROM chain_link WHERE site_id = ? LIMIT 1',
            [$site->id->toRfc4122()],
        ) !== false;
    }

    /** Within a write. The first key of a site goes into the chain before anything is sealed with it. */
    public function first(Site $site): void
    {
        $this->add($site, $this->keys->publicKey($site), null, '', '');
    }

    /** Within a write. */
    public function rotate(Site $site, string $reason): void
    {
        if ($this->of($site) === []) {
            $this->first($site);
        }
        $this->keys->rotate($site, function (string $before, string $new, string $vouched) use ($site, $reason): void {
            $this->add($site, $new, $before, $vouched, $reason);
        });
    }

    /** Within a write. The previous key is lost: the present one continues without its signature. */
    public function lost(Site $site, string $reason): void
    {
        $before = array_reverse(array_column($this->of($site), 'publicKey'));
        $this->add($site, $this->keys->publicKey($site), $before[0] ?? null, '', $reason);
    }

    private function add(Site $site, string $key, ?string $before, string $vouched, string $reason): void
    {
        $this->connection->executeStatement(
            'INSERT INTO site_key (id, site_id, public_key, before_key, vouched, reason, recorded_at) '
            .'VALUES (?, ?, ?, ?, ?, ?, ?)',
            [
                Uuid::v7()->toRfc4122(),
                $site->id->toRfc4122(),
                $key,
                $before,
                $vouched,
                $reason,
                $this->now->instant()->rfc3339(),
            ],
        );
    }
}
