<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * Every row that is recorded is linked to the one before it: its hash is that of its canonical form and of the link
 * before, per site, in the order of commits. The database makes the links; this walks them.
 */
final readonly class SiteChain
{
    private const AT_ONCE = 2000;
    private const KINDS = [
        'batch',
        'event',
        'site_event',
        'lot',
        'batch_lot',
        'thermometer_check',
        'day_sign',
        'day_said',
        'batch_fact',
        'site_change',
        'account_change',
        'sensor_assignment',
        'series_block',
        'alarm_event',
        'row_kept',
    ];

    public function __construct(private Connection $connection, private KeptRows $rows)
    {
    }

    /**
     * Taken before any other lock by whoever records, so that two writers of a site never wait for each other in a
     * ring.
     */
    public function lock(Site $site): void
    {
        $this->connection->executeStatement('SELECT 1 FROM site WHERE id = ? FOR NO KEY UPDATE', [
            $site->id->toRfc4122(),
        ]);
    }

    /**
     * Walks the chain from its first link.
     *
     * @return ChainBreak|null null where it holds
     */
    public function firstBreak(Site $site): ?ChainBreak
    {
        return $this->connection->transactional(function () use ($site): ?ChainBreak {
            // The canonical form has its times in UTC, whatever the connection is set to.
            $this->connection->executeStatement("SET LOCAL timezone = 'UTC'");

            return $this->walk($site)
                ?? $this->unchained($site)
                ?? $this->brokenSeal($site)
                ?? $this->movedLink($site)
                ?? $this->rows->firstDifference($site);
        });
    }

    private function walk(Site $site): ?ChainBreak
    {
        $position = 0;
        $hash = '';
        while (($links = $this->links($site, $position)) !== []) {
            foreach ($links as $link) {
                if ($link['position'] !== ++$position) {
                    return new ChainBreak('missing_link', $position, $link['kind'], $link['row_id']);
                }
                if ($link['canonical'] === null) {
                    return new ChainBreak('missing_row', $position, $link['kind'], $link['row_id']);
                }
                $hash = hash('sha256', $hash.$link['canonical'], true);
                if (!hash_equals($link['hash'], bin2hex($hash))) {
                    return new ChainBreak('altered', $position, $link['kind'], $link['row_id']);
                }
            }
        }

        return null;
    }

    /**
     * What the chain comes to at the end of a day: the hash of the last link recorded before this moment; null where
     * nothing was.
     */
    public function digestBefore(Site $site, Instant $moment): ?Seal
    {
        $row = $this->connection->fetchAssociative(
            "SELECT position, encode(hash, 'hex') AS hash FROM chain_link "
.'WHERE site_id = ? AND recorded_at < ? ORDER BY recorded_at DESC, position DESC LIMIT 1',
            [$site->id->toRfc4122(), $moment->rfc3339()],
        );

        return self::sealOf($row);
    }

    /** What the chain comes to now. */
    public function seal(Site $site): ?Seal
    {
        $row = $this->connection->fetchAssociative(
            "SELECT position, encode(hash, 'hex') AS hash FROM chain_link "
.'WHERE site_id = ? ORDER BY position DESC LIMIT 1',
            [$site->id->toRfc4122()],
        );

        return self::sealOf($row);
    }

    /** The link at a place of the chain; null where it does not reach so far. */
    public function at(Site $site, int $position): ?Seal
    {
        return self::sealOf(
            $this->connection->fetchAssociative(
                "SELECT position, encode(hash, 'hex') AS hash FROM chain_link WHERE site_id = ? AND position = ?",
                [$site->id->toRfc4122(), $position],
            ),
        );
    }

    /**
     * @return iterable<array{day: string, position: int, digest: string}> what the chain came to at the end of every
     *     day on which anything was recorded
     */
    public function daily(Site $site): iterable
    {
        /** @var iterable<array{day: string, position: int, digest: string}> */
        return $this->connection->iterateAssociative(
            <<<'SQL'
            SELECT DISTINCT ON (1) (recorded_at AT TIME ZONE ?)::date::text AS day, position, encode(hash,
              'hex') AS digest
            FROM chain_link WHERE site_id = ? AND recorded_at > to_timestamp(0)
            ORDER BY 1, recorded_at DESC, position DESC
            SQL,
            [$site->timezone, $site->id->toRfc4122()],
        );
    }

    public function length(Site $site): int
    {
        $length = $this->connection->fetchOne('SELECT coalesce(max(position), 0) FROM chain_link WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);

        return \is_int($length) ? $length : 0;
    }

    /** @param array<string, mixed>|false $row */
    private static function sealOf(array|false $row): ?Seal
    {
        return $row !== false && \is_int($row['position']) && \is_string($row['hash'])
            ? new Seal($row['position'], $row['hash'])
            : null;
    }

    /**
     * @return list<array{position: int, kind: string, row_id: string, hash: string, canonical: string|null}> the
     *     canonical form as chain_canonical() makes it, many rows at once; within UTC
     */
    private function links(Site $site, int $after): array
    {
        $canonical = '';
        foreach (self::KINDS as $kind) {
            $row =
                $kind === 'batch'
                    ? "to_jsonb(r) - CASE WHEN r.piece_numbers IS NULL THEN 'piece_numbers' ELSE '' END"
                    : 'to_jsonb(r)';
            $canonical .= " WHEN '$kind' THEN (SELECT ($row)::text FROM $kind r WHERE r.id = l.row_id)";
        }

        /** @var list<array{position: int, kind: string, row_id: string, hash: string, canonical: string|null}> */
        return $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT l.position, l.kind, l.row_id, encode(l.hash, 'hex') AS hash, CASE l.kind $canonical END AS canonical
            FROM chain_link l WHERE l.site_id = ? AND l.position > ? ORDER BY l.position LIMIT ?
            SQL,
            [$site->id->toRfc4122(), $after, self::AT_ONCE],
        );
    }

    /** A row that was put in without its link. */
    private function unchained(Site $site): ?ChainBreak
    {
        foreach (self::KINDS as $kind) {
            $ofSite = match ($kind) {
                'event', 'batch_lot' => 'EXISTS (SELECT 1 FROM batch b WHERE b.id = r.batch_id AND b.site_id = :site)',
                'thermometer_check' => 'EXISTS ('
.'SELECT 1 FROM thermometer t WHERE t.id = r.thermometer_id AND t.site_id = :site)',
                default => 'r.site_id = :site',
            };
            $id = $this->connection->fetchOne(
                "SELECT r.id FROM $kind r WHERE $ofSite AND NOT EXISTS ("
."SELECT 1 FROM chain_link l WHERE l.kind = '$kind' AND l.row_id = r.id) LIMIT 1",
                ['site' => $site->id->toRfc4122()],
            );
            if (\is_string($id)) {
                return new ChainBreak('not_chained', 0, $kind, $id);
            }
        }

        return null;
    }

    /** A signed day whose digest is not that of its place in the chain: all of the chain was made anew. */
    /**
     * A link is of the moment its row was recorded, or of that of the link before it where that is later: any other
     * time was put there afterwards.
     */
    private function movedLink(Site $site): ?ChainBreak
    {
        $moments = '';
        foreach (self::KINDS as $kind) {
            $moment = match ($kind) {
                'batch' => 'begun_at',
                'day_sign', 'day_said' => 'at',
                'batch_lot' => null,
                default => 'recorded_at',
            };
            $moments .= $moment === null
                ? ''
                : " WHEN '$kind' THEN (SELECT r.$moment FROM $kind r WHERE r.id = l.row_id)";
        }
        /** @var array{position: int, kind: string, row_id: string}|false $moved */
        $moved = $this->connection->fetchAssociative(
            <<<SQL
            WITH timed AS (
                SELECT l.position, l.kind, l.row_id, l.recorded_at, CASE l.kind $moments END AS of_row,
                       lag(l.recorded_at) OVER (ORDER BY l.position) AS before
                FROM chain_link l WHERE l.site_id = ?
            )
            SELECT position, kind, row_id FROM timed
            WHERE recorded_at < before OR recorded_at IS DISTINCT FROM greatest(of_row, before) AND of_row IS NOT NULL
            ORDER BY position LIMIT 1
            SQL,
            [$site->id->toRfc4122()],
        );

        return $moved === false
            ? null
            : new ChainBreak('link_time', $moved['position'], $moved['kind'], $moved['row_id']);
    }

    private function brokenSeal(Site $site): ?ChainBreak
    {
        /** @var array{id: string, position: int}|false $sign */
        $sign = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT s.id, s.position FROM day_sign s LEFT JOIN chain_link l ON l.site_id = s.site_id
              AND l.position = s.position
            WHERE s.site_id = ? AND encode(l.hash, 'hex') IS DISTINCT FROM s.digest ORDER BY s.position LIMIT 1
            SQL,
            [$site->id->toRfc4122()],
        );

        return $sign === false ? null : new ChainBreak('seal', $sign['position'], 'day_sign', $sign['id']);
    }
}
