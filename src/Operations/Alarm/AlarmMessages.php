<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/**
 * What has to be told to whom, in their language: written down with what it is told for, sent afterwards, tried again
 * until it is handed on or somebody has the alarm.
 * One to one person over one channel for one step is one message, whoever writes it down and however often.
 */
final readonly class AlarmMessages
{
    /** Seconds between two tries at the most: soon, then less and less often, as long as somebody has to be told. */
    private const RETRY = 60;
    /** Seconds a look may wait for a gateway that does not answer; the rest is handed on by the next. */
    private const PATIENCE = 4.0;

    public function __construct(
        private Connection $connection,
        private Gateway $gateway,
        private Alarms $alarms,
        private LocaleSwitcher $locale,
        private Now $now,
    ) {
    }

    /** Within a write. */
    public function add(Site $site, Alarm $alarm, int $step, AlarmChannel $channel, Contact $to): void
    {
        $now = $this->now->instant()->rfc3339();
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO alarm_sending (id, site_id, alarm_id, step, channel, account_id, address, made_at, next_try_at)
            VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING
            SQL,
            [
                Uuid::v5(
                    Uuid::fromString($alarm->id),
                    "$step/{$channel->value}/{$to->accountId}/{$alarm->raisedAt->epoch}",
                )->toRfc4122(),
                $site->id->toRfc4122(),
                $alarm->id,
                $step,
                $channel->value,
                $to->accountId,
                $to->address($channel),
                $now,
                $now,
            ],
        );
    }

    /**
     * Texts and calls all at once: one that the gateway is slow to take holds up none.
     *
     * @param list<AlarmChannel> $channels
     *
     * @return int how many were handed on, of those whose alarm still asks for somebody
     */
    public function send(Site $site, array $channels): int
    {
        /**
         * @var list<array{id: string, alarm_id: string, channel: string, address: string, initials: string,
         *     tries: int, language: string}>
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT s.id, s.alarm_id, s.channel, s.address, coalesce(a.initials, '') AS initials, s.tries,
                   coalesce(p.language, t.language) AS language
            FROM alarm_sending s JOIN alarm l ON l.id = s.alarm_id JOIN site t ON t.id = s.site_id
            LEFT JOIN account a ON a.id = s.account_id LEFT JOIN person p ON p.id = a.person_id
            WHERE s.site_id = ? AND s.sent_at IS NULL AND s.next_try_at <= ? AND s.channel IN (?)
              AND l.over_at IS NULL AND l.settled_at IS NULL AND l.taken_at IS NULL
            ORDER BY s.tries, s.made_at, s.id LIMIT 50
            SQL,
            [
                $site->id->toRfc4122(),
                $this->now->instant()->rfc3339(),
                array_map(static fn (AlarmChannel $one): string => $one->value, $channels),
            ],
            [2 => ArrayParameterType::STRING],
        );
        $sent = 0;
        $began = microtime(true);
        $handed = [];
        foreach ($rows as $row) {
            $alarm = $this->locale->runWithLocale(
                $row['language'],
                fn (): ?Alarm => $this->alarms->find($site, $row['alarm_id']),
            );
            if ($alarm === null || microtime(true) - $began > self::PATIENCE) {
                continue;
            }
            // A request over HTTP is only begun by that; mail is sent.
            $handed[] = [$alarm, $row, $this->gateway->begin(
                $row['id'],
                $site->id->toRfc4122(),
                AlarmChannel::from($row['channel']),
                $row['address'],
                trim("{$site->name}: {$alarm->words}. {$alarm->does} ".implode(', ', $alarm->effects)),
            )];
        }
        foreach ($handed as [$alarm, $row, $finish]) {
            $sent += $this->finish($site, $alarm, $row, $finish) ? 1 : 0;
        }

        return $sent;
    }

    /**
     * @param array{id: string, channel: string, address: string, initials: string, tries: int} $row
     * @param \Closure(): void $finish throws where it was not taken
     */
    private function finish(Site $site, Alarm $alarm, array $row, \Closure $finish): bool
    {
        $now = $this->now->instant();
        try {
            $finish();
        } catch (DeliveryFailed $problem) {
            $tries = $row['tries'] + 1;
            $next = $now->plus(Span::ofSeconds(min(self::RETRY, 2 ** min($tries, 10))));
            $this->connection->executeStatement(
                'UPDATE alarm_sending SET tries = ?, next_try_at = ?, problem = ? WHERE id = ?',
                [$tries, $next->rfc3339(), mb_substr($problem->getMessage(), 0, 300), $row['id']],
            );

            return false;
        }
        $this->connection->transactional(function () use ($site, $alarm, $row, $now): void {
            $isFirst = $this->connection->executeStatement(
                'UPDATE alarm_sending SET sent_at = ?, tries = tries + 1, problem = NULL '
                .'WHERE id = ? AND sent_at IS NULL',
                [$now->rfc3339(), $row['id']],
            );
            if ($isFirst === 1) {
                $this->alarms->record($site, $alarm, null, 'told', $row['channel'].' '.$row['initials']);
            }
        });

        return true;
    }

    /** @return list<AlarmMessage> what was told of one alarm, in order */
    public function of(string $alarmId): array
    {
        /**
         * @var list<array{channel: string, name: string, address: string, sent_at: int|null,
         *     problem: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT s.channel, coalesce(a.name, '') AS name, s.address,
                   extract(epoch FROM s.sent_at)::bigint AS sent_at, s.problem
            FROM alarm_sending s LEFT JOIN account a ON a.id = s.account_id WHERE s.alarm_id = ?
            ORDER BY s.step, s.made_at, s.channel, s.id
            SQL,
            [$alarmId],
        );

        return array_map(
            static fn (array $row): AlarmMessage => new AlarmMessage(
                AlarmChannel::from($row['channel']),
                $row['name'],
                $row['address'],
                $row['sent_at'] === null ? null : Instant::ofEpoch($row['sent_at']),
                $row['problem'],
            ),
            $rows,
        );
    }
}
