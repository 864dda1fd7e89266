<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/**
 * A day of the chain is a range of links, closed by the first write after it ended (the watch makes one if there is no
 * other), regardless of the times in its rows. A day that a wrong clock closed early gets a second range later.
 */
final readonly class SiteDays
{
    /** SQL of the day that is open, as text. */
    public const OPENED = <<<'SQL'
        coalesce(
            (SELECT next_day::text FROM day_close WHERE site_id = :site ORDER BY last_position DESC LIMIT 1),
            (SELECT (recorded_at AT TIME ZONE :zone)::date::text FROM chain_link
             WHERE site_id = :site AND recorded_at > to_timestamp(0) ORDER BY position LIMIT 1)
        )
        SQL;

    public function __construct(private Connection $connection, private SiteChain $chain)
    {
    }

    /** The day whose range of links is open; null before anything was recorded. */
    public function opened(Site $site): ?LocalDate
    {
        $day = $this->connection->fetchOne('SELECT '.self::OPENED, [
            'site' => $site->id->toRfc4122(),
            'zone' => $site->timezone,
        ]);

        return \is_string($day) ? LocalDate::ofIso($day) : null;
    }

    /**
     * Within a write. Closes the day that is open where it is another than that of the moment.
     *
     * @param string|null $opened the day that is open; null before anything was recorded
     */
    public function close(Site $site, Instant $now, ?string $opened): void
    {
        $today = LocalDate::ofInstant($now, $site->zone())->iso();
        if ($opened === null || $opened === $today) {
            return;
        }
        // Reads the open day again: after waiting for the lock, the earlier answer may be outdated.
        $this->connection->executeStatement(
            'INSERT INTO day_close (id, site_id, day, next_day, first_position, last_position, digest, recorded_at) '
            .'SELECT :id, l.site_id, o.day::date, :today, coalesce((SELECT last_position FROM day_close '
            .'WHERE site_id = :site ORDER BY last_position DESC LIMIT 1), 0) + 1, l.position, '
            ."encode(l.hash, 'hex'), :now FROM chain_link l, (SELECT ".self::OPENED.' AS day) o '
            .'WHERE l.site_id = :site AND o.day <> :today ORDER BY l.position DESC LIMIT 1',
            [
                'id' => Uuid::v7()->toRfc4122(),
                'site' => $site->id->toRfc4122(),
                'zone' => $site->timezone,
                'today' => $today,
                'now' => $now->rfc3339(),
            ],
        );
    }

    /** The digest at the end of a day, or now for the open day; null if nothing was recorded by then. */
    public function seal(Site $site, LocalDate $day): ?Seal
    {
        if ($this->opened($site)?->iso() === $day->iso()) {
            return $this->chain->seal($site);
        }

        return Seal::ofRow(
            $this->connection->fetchAssociative(
                'SELECT last_position AS position, digest FROM day_close '
                .'WHERE site_id = ? AND day <= ? ORDER BY day DESC, last_position DESC LIMIT 1',
                [$site->id->toRfc4122(), $day->iso()],
            ),
        );
    }

    /** Where the first range of a day begins: the place before it; that of now where the day has none. */
    public function before(Site $site, LocalDate $day): int
    {
        $place = $this->connection->fetchOne(
            'SELECT coalesce((SELECT min(first_position) - 1 FROM day_close WHERE site_id = :site AND day = :day), '
            .'(SELECT max(last_position) FROM day_close WHERE site_id = :site), 0)',
            ['site' => $site->id->toRfc4122(), 'day' => $day->iso()],
        );

        return \is_int($place) ? $place : 0;
    }

    /** @return iterable<array{day: string, position: int, digest: string}> the end of every range, the open one last */
    public function ranges(Site $site): iterable
    {
        /** @var iterable<array{day: string, position: int, digest: string}> $closed */
        $closed = $this->connection->iterateAssociative(
            'SELECT day::text AS day, last_position AS position, digest FROM day_close '
            .'WHERE site_id = ? ORDER BY last_position',
            [$site->id->toRfc4122()],
        );
        yield from $closed;
        $opened = $this->opened($site);
        $seal = $opened === null ? null : $this->seal($site, $opened);
        if ($opened !== null && $seal !== null) {
            yield ['day' => $opened->iso(), 'position' => $seal->position, 'digest' => $seal->digest];
        }
    }
}
