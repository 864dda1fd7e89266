<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;

/** Who is on duty when, how they are reached, and what is done for alarms of each level. */
final readonly class DutyRoster
{
    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /** @return list<DutyShift> by who is told first */
    public function shifts(Site $site): array
    {
        /**
         * @var list<array{id: string, account_id: string, name: string, initials: string, weekdays: int,
         *     from_time: string, to_time: string, in_line: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT d.id, d.account_id, a.name, a.initials, d.weekdays, d.from_time, d.to_time, d.in_line
            FROM duty_shift d JOIN account a ON a.id = d.account_id
            WHERE d.site_id = ? AND NOT d.is_removed AND a.disabled_at IS NULL
            ORDER BY d.in_line, d.from_time, a.name, d.id
            SQL,
            [$site->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): DutyShift => new DutyShift(
                $row['id'],
                $row['account_id'],
                $row['name'],
                $row['initials'],
                $row['weekdays'],
                $row['from_time'],
                $row['to_time'],
                $row['in_line'],
            ),
            $rows,
        );
    }

    /** @return list<Contact> of everybody who works here, by name */
    public function contacts(Site $site): array
    {
        /**
         * @var list<array{id: string, name: string, initials: string, role: string, mail: string, phone: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT a.id, a.name, a.initials, a.role, coalesce(c.mail, '') AS mail, coalesce(c.phone, '') AS phone
            FROM account a LEFT JOIN account_contact c ON c.account_id = a.id
            WHERE a.site_id = ? AND a.disabled_at IS NULL AND a.role NOT IN ('reader', 'inspector')
            ORDER BY a.name, a.id
            SQL,
            [$site->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): Contact => new Contact(
                $row['id'],
                $row['name'],
                $row['initials'],
                $row['role'],
                $row['mail'],
                $row['phone'],
            ),
            $rows,
        );
    }

    /** @return list<Contact> who is told at a moment, one after the other: those on duty, then who answers for it */
    public function line(Site $site, Instant $at): array
    {
        $contacts = [];
        foreach ($this->contacts($site) as $contact) {
            $contacts[$contact->accountId] = $contact;
        }
        [$date, $time] = explode('T', WallTime::of($at, $site->zone()));
        $weekday = (int) (new \DateTimeImmutable($date.' UTC'))->format('N');
        $line = [];
        foreach ($this->shifts($site) as $shift) {
            if ($shift->covers($weekday, substr($time, 0, 5)) && isset($contacts[$shift->accountId])) {
                $line[$shift->accountId] = $contacts[$shift->accountId];
            }
        }
        foreach (['pitmaster', 'manager', 'owner'] as $role) {
            foreach ($contacts as $contact) {
                if ($contact->role === $role && ($contact->mail !== '' || $contact->phone !== '')) {
                    $line[$contact->accountId] ??= $contact;
                }
            }
        }

        return array_values($line);
    }

    /** Whether the kitchen is closed, so that somebody may have to be woken. */
    public function isNight(Site $site, Instant $at): bool
    {
        $time = substr(explode('T', WallTime::of($at, $site->zone()))[1], 0, 5);
        $isOpen = $site->opensAt <= $site->closesAt
            ? $time >= $site->opensAt && $time < $site->closesAt
            : $time >= $site->opensAt || $time < $site->closesAt;

        return !$isOpen;
    }

    /** @return array<string, EscalationPlan> by level */
    public function plan(Site $site): array
    {
        $json = $this->connection->fetchOne('SELECT levels FROM alarm_plan WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);
        $kept = \is_string($json) ? json_decode($json, true) : null;
        $plan = [];
        foreach (AlarmLevel::cases() as $level) {
            $written = \is_array($kept) ? $kept[$level->value] ?? null : null;
            $plan[$level->value] = \is_array($written)
                ? EscalationPlan::ofArray($written)
                : EscalationPlan::usual($level);
        }

        return $plan;
    }

    /** @param array<string, EscalationPlan> $plan by level */
    public function keepPlan(Account $by, array $plan): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO alarm_plan (site_id, levels, changed_at, changed_by) VALUES (?, ?, ?, ?)
            ON CONFLICT (site_id) DO UPDATE SET levels = excluded.levels, changed_at = excluded.changed_at,
              changed_by = excluded.changed_by
            SQL,
            [
                $by->site->id->toRfc4122(),
                json_encode(
                    array_map(static fn (EscalationPlan $one): array => $one->toArray(), $plan),
                    \JSON_THROW_ON_ERROR,
                ),
                $this->now->instant()->rfc3339(),
                $by->id->toRfc4122(),
            ],
        );
    }

    public function keepContact(Site $site, string $accountId, string $mail, string $phone): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO account_contact (account_id, site_id, mail, phone) VALUES (?, ?, ?, ?)
            ON CONFLICT (account_id) DO UPDATE SET mail = excluded.mail, phone = excluded.phone
            SQL,
            [$accountId, $site->id->toRfc4122(), $mail, $phone],
        );
    }

    /** @param list<int> $days 1 for Monday to 7 */
    public function addShift(Site $site, string $accountId, array $days, string $from, string $to, int $inLine): void
    {
        $this->connection->insert('duty_shift', [
            'id' => Uuid::v7()->toRfc4122(),
            'site_id' => $site->id->toRfc4122(),
            'account_id' => $accountId,
            'weekdays' => array_sum(array_map(static fn (int $day): int => 1 << ($day - 1), array_unique($days))),
            'from_time' => $from,
            'to_time' => $to,
            'in_line' => $inLine,
        ]);
    }

    public function removeShift(Site $site, string $id): void
    {
        $this->connection->executeStatement(
            'UPDATE duty_shift SET is_removed = true WHERE site_id = ? AND id::text = ?',
            [$site->id->toRfc4122(), $id],
        );
    }
}
