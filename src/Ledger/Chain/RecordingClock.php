<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Platform\Machine\Uptime;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/**
 * Whether the machine's clock can be trusted. A clock behind the last entry, far ahead of it, or set while the machine
 * ran stops recording and judging until it is right or a manager confirms it with a reason.
 */
final class RecordingClock
{
    /** Allowed step back of a clock corrected by a time server. */
    public const BEHIND_SECONDS = 120;

    /** The watch records something every day; after a longer pause the clock must be confirmed. */
    public const AHEAD_DAYS = 14;

    /** @var array<string, Instant> trusted present moment, by site and clock time */
    private array $present = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly Uptime $uptime,
        private readonly Now $now,
    ) {
    }

    /** @throws ClockProblem */
    public function check(Site $site, ?Instant $last, Instant $now): void
    {
        $id = $site->id->toRfc4122();
        $problem = $this->problem($site, $last, $this->known($id)[1], $now);
        if ($problem !== null) {
            throw $problem;
        }
        $this->keepStart($id, 'ON CONFLICT DO NOTHING');
    }

    /** Why nothing is recorded of a site now; null where the clock can be right. */
    #[AsTwigFunction('clock_problem')]
    public function problemOf(Site $site): ?ClockProblem
    {
        if (!$this->isRefused($site->id->toRfc4122())) {
            return null;
        }
        [$last, $started] = $this->known($site->id->toRfc4122());

        return $this->problem($site, $last, $started, $this->now->instant());
    }

    /** By which a site is judged: now, or where the clock cannot be right, when something was recorded last. */
    public function present(string $siteId): Instant
    {
        $now = $this->now->instant();
        $key = $siteId.$now->epoch;
        if (!isset($this->present[$key])) {
            [$last, $started] = $this->known($siteId);
            $isRight = self::isTrusted($last, $now) && !$this->isSet($started);
            $this->present = [$key => $isRight ? $now : $last ?? $now];
        }

        return $this->present[$key];
    }

    public function isRefused(string $siteId): bool
    {
        return $this->present($siteId)->epoch !== $this->now->instant()->epoch;
    }

    /** Seconds by which the clock was set while the machine ran, from the site with the best evidence. */
    public function setBy(): int
    {
        [$boot, $started] = [$this->uptime->boot(), $this->uptime->startedAt()];
        $seconds = $boot === null || $started === null
            ? 0
            : $this->connection->fetchOne('SELECT clock_set_by(?, ?)', [$boot, $started->rfc3339()]);

        return \is_int($seconds) ? $seconds : 0;
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
        return $this->known($site->id->toRfc4122())[0];
    }

    /** @return list<array{at: Instant, last: Instant, by: string, reason: string}> confirmations, latest first */
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

    /**
     * When the last link was recorded, and when this machine was started by the clock that the site trusts; null before
     * the first, and where the machine has recorded nothing since it was started.
     *
     * @return array{Instant|null, Instant|null}
     */
    private function known(string $siteId): array
    {
        /** @var array{last: int|null, started: int|null} $row */
        $row = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT (SELECT extract(epoch FROM recorded_at)::bigint FROM chain_link
                    WHERE site_id = :site ORDER BY position DESC LIMIT 1) AS last,
                   (SELECT extract(epoch FROM started_at)::bigint FROM machine_clock
                    WHERE site_id = :site AND boot = :boot) AS started
            SQL,
            ['site' => $siteId, 'boot' => $this->uptime->boot()],
        );

        return [
            $row['last'] === null || $row['last'] <= 0 ? null : Instant::ofEpoch($row['last']),
            $row['started'] === null ? null : Instant::ofEpoch($row['started']),
        ];
    }

    private function problem(Site $site, ?Instant $last, ?Instant $started, Instant $now): ?ClockProblem
    {
        if (!self::isTrusted($last, $now)) {
            return ClockProblem::of($site, $last ?? $now, $now);
        }

        return $this->isSet($started)
            ? ClockProblem::set($site, $now->plus(Span::ofSeconds(-$this->setSince($started))), $now)
            : null;
    }

    private function isSet(?Instant $started): bool
    {
        return abs($this->setSince($started)) > self::BEHIND_SECONDS;
    }

    /** By how many seconds. */
    private function setSince(?Instant $started): int
    {
        $starts = $started === null ? null : $this->uptime->startedAt();

        return $started === null || $starts === null ? 0 : $starts->epoch - $started->epoch;
    }

    private function keepStart(string $siteId, string $conflict): void
    {
        [$boot, $started] = [$this->uptime->boot(), $this->uptime->startedAt()];
        if ($boot !== null && $started !== null) {
            $this->connection->executeStatement(
                'INSERT INTO machine_clock (site_id, boot, started_at) VALUES (?, ?, ?) '.$conflict,
                [$siteId, $boot, $started->rfc3339()],
            );
        }
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
        $this->keepStart(
            $by->site->id->toRfc4122(),
            'ON CONFLICT (site_id, boot) DO UPDATE SET started_at = excluded.started_at',
        );
        $this->present = [];
    }
}
