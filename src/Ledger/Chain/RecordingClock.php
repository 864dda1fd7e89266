<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/**
 * Whether the clock of the machine can be right: one that stands behind what was recorded last, or far ahead of it,
 * stops recording until it is right or a manager says why.
 */
final readonly class RecordingClock
{
    /** What clocks that are put right by a time server may go back. */
    public const BEHIND_SECONDS = 120;

    /** The watch records something every day; what was off for longer is asked. */
    public const AHEAD_DAYS = 14;

    public function __construct(private Connection $connection)
    {
    }

    /** @throws ClockProblem */
    public static function check(Site $site, ?Instant $last, Instant $now): void
    {
        if (!self::isTrusted($last, $now)) {
            throw ClockProblem::of($site, $last ?? $now, $now);
        }
    }

    public static function isTrusted(?Instant $last, Instant $now): bool
    {
        if ($last === null) {
            return true;
        }
        $earliest = $last->plus(Span::ofSeconds(-self::BEHIND_SECONDS));

        return !$earliest->isAfter($now) && !$now->isAfter($last->plus(Span::ofHours(24 * self::AHEAD_DAYS)));
    }

    /** When the last link of a site was recorded; null before the first. */
    public function last(Site $site): ?Instant
    {
        $last = $this->connection->fetchOne(
            'SELECT extract(epoch FROM recorded_at)::bigint FROM chain_link '
            .'WHERE site_id = ? ORDER BY position DESC LIMIT 1',
            [$site->id->toRfc4122()],
        );

        return \is_int($last) && $last > 0 ? Instant::ofEpoch($last) : null;
    }

    /** @return list<array{at: Instant, last: Instant, by: string, reason: string}> what was said of it, latest first */
    public function words(Site $site): array
    {
        /** @var list<array{at: int, last: int, by: string, reason: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT extract(epoch FROM recorded_at)::bigint AS at, extract(epoch FROM last_at)::bigint AS last, '
            .'initials AS by, reason FROM clock_word WHERE site_id = ? ORDER BY id DESC LIMIT 20',
            [$site->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): array => [
                'at' => Instant::ofEpoch($row['at']),
                'last' => Instant::ofEpoch($row['last']),
                'by' => $row['by'],
                'reason' => $row['reason'],
            ],
            $rows,
        );
    }

    /** Within a write of the chain that is not held up by the clock: from here on it is measured from now. */
    public function vouch(Uuid $id, Account $by, Instant $last, Instant $now, string $reason): void
    {
        $this->connection->executeStatement(
            'INSERT INTO clock_word (id, site_id, account_id, initials, last_at, reason, recorded_at) '
            .'VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
            [
                $id->toRfc4122(),
                $by->site->id->toRfc4122(),
                $by->id->toRfc4122(),
                $by->initials,
                $last->rfc3339(),
                $reason,
                $now->rfc3339(),
            ],
        );
    }
}
