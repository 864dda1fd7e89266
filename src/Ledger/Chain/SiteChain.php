<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * Links every recorded row to the one before it, per site, in the order of commits. The database makes the links; their
 * hashed bytes are described in docs/format/proof.md.
 */
final readonly class SiteChain
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * A writer takes this lock first, so that two writers of a site never deadlock. It is also the recording time of
     * rows without one.
     */
    public function lock(Site $site, Instant $now): ChainHead
    {
        /** @var array{last: int|null, opened: string|null}|false $row */
        $row = $this->connection->fetchAssociative(
            "SELECT set_config('verjuicer.now', :now, true), (SELECT extract(epoch FROM l.recorded_at)::bigint "
            .'FROM chain_link l WHERE l.site_id = s.id ORDER BY l.position DESC LIMIT 1) AS last, '
            .SiteDays::OPENED.' AS opened FROM site s WHERE s.id = :site FOR NO KEY UPDATE OF s',
            ['site' => $site->id->toRfc4122(), 'zone' => $site->timezone, 'now' => $now->rfc3339()],
        );
        $last = $row === false ? null : $row['last'];

        return new ChainHead(
            $last === null || $last === 0 ? null : Instant::ofEpoch($last),
            $row === false ? null : $row['opened'],
        );
    }

    /** The present end of the chain. */
    public function seal(Site $site): ?Seal
    {
        $row = $this->connection->fetchAssociative(
            "SELECT position, encode(hash, 'hex') AS digest FROM chain_link "
.'WHERE site_id = ? ORDER BY position DESC LIMIT 1',
            [$site->id->toRfc4122()],
        );

        return Seal::ofRow($row);
    }

    /** The link at a place of the chain; null where it does not reach so far. */
    public function at(Site $site, int $position): ?Seal
    {
        return Seal::ofRow(
            $this->connection->fetchAssociative(
                "SELECT position, encode(hash, 'hex') AS digest FROM chain_link WHERE site_id = ? AND position = ?",
                [$site->id->toRfc4122(), $position],
            ),
        );
    }

    public function length(Site $site): int
    {
        $length = $this->connection->fetchOne('SELECT coalesce(max(position), 0) FROM chain_link WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);

        return \is_int($length) ? $length : 0;
    }

    /**
     * @param list<int> $positions
     *
     * @return array<int, string> the digests at these places, as far as the chain reaches
     */
    public function digests(Site $site, array $positions): array
    {
        /** @var array<int, string> */
        return $positions === [] ? [] : $this->connection->fetchAllKeyValue(
            "SELECT position, encode(hash, 'hex') FROM chain_link WHERE site_id = ? AND position IN (?)",
            [$site->id->toRfc4122(), $positions],
            [1 => ArrayParameterType::INTEGER],
        );
    }
}
