<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/**
 * The alarms of a site. One cause raises one alarm, whoever finds it and however often; what becomes of it is recorded
 * and in the chain.
 */
final readonly class Alarms
{
    private const MOST = 2000;
    private const SELECT = <<<'SQL'
    SELECT a.id, a.cause, a.level, a.words, a.does, a.texts, extract(epoch FROM a.until_at)::bigint AS until_at,
           a.batch_id, a.door, a.effects, extract(epoch FROM a.raised_at)::bigint AS raised_at,
           extract(epoch FROM a.over_at)::bigint AS over_at, extract(epoch FROM a.taken_at)::bigint AS taken_at,
           a.taken_by, extract(epoch FROM a.settled_at)::bigint AS settled_at,
           extract(epoch FROM a.put_off_until)::bigint AS put_off_until, a.step,
           extract(epoch FROM a.next_step_at)::bigint AS next_step_at
    FROM alarm a
    SQL;

    public function __construct(
        private Connection $connection,
        private Ledger $ledger,
        private LocaleSwitcher $locale,
        private Now $now,
    ) {
    }

    /** @return list<Alarm> those that still ask for somebody, the most urgent first */
    public function open(Site $site): array
    {
        return $this->read(
            'WHERE a.site_id = ? AND a.over_at IS NULL AND a.settled_at IS NULL '
            ."ORDER BY array_position(ARRAY['wake','act','look'], a.level::text), a.raised_at, a.id",
            [$site->id->toRfc4122()],
        );
    }

    /** @return list<Alarm> the latest of those that are over or settled */
    public function past(Site $site, int $most = 60): array
    {
        return $this->read(
            'WHERE a.site_id = ? AND (a.over_at IS NOT NULL OR a.settled_at IS NOT NULL) '
            .'ORDER BY a.raised_at DESC, a.id LIMIT ?',
            [$site->id->toRfc4122(), $most],
        );
    }

    public function find(Site $site, string $id): ?Alarm
    {
        return $this->read('WHERE a.site_id = ? AND a.id::text = ?', [$site->id->toRfc4122(), $id])[0] ?? null;
    }

    private function caused(Site $site, string $cause): ?Alarm
    {
        return $this->read('WHERE a.site_id = ? AND a.cause = ?', [$site->id->toRfc4122(), $cause])[0] ?? null;
    }

    /** @return list<AlarmEvent> what became of it, in order */
    public function history(string $alarmId): array
    {
        /**
         * @var list<array{alarm_id: string, at: int, recorded_at: int, initials: string,
         *     type: 'raised'|'told'|'escalated'|'taken'|'put_off'|'settled'|'over', words: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT alarm_id, extract(epoch FROM at)::bigint AS at, extract(epoch FROM recorded_at)::bigint '
            .'AS recorded_at, initials, type, words FROM alarm_event WHERE alarm_id = ? ORDER BY seq',
            [$alarmId],
        );

        return array_map(
            static fn (array $row): AlarmEvent => new AlarmEvent(
                $row['alarm_id'],
                Instant::ofEpoch($row['at']),
                Instant::ofEpoch($row['recorded_at']),
                $row['initials'],
                $row['type'],
                $row['words'],
            ),
            $rows,
        );
    }

    /**
     * Those about batches, and those about places and sensors in the time of them.
     *
     * @param list<string> $batchIds
     *
     * @return list<Alarm> by the time they were raised
     */
    public function about(Site $site, array $batchIds, Instant $from, Instant $to): array
    {
        $known = array_fill_keys($batchIds, true);
        $all = $this->read(
            'WHERE a.site_id = ? AND a.raised_at >= ? AND a.raised_at < ? ORDER BY a.raised_at, a.id LIMIT ?',
            [$site->id->toRfc4122(), $from->rfc3339(), $to->rfc3339(), self::MOST],
        );

        return array_values(
            array_filter($all, static fn (Alarm $one): bool => $one->batchId === null || isset($known[$one->batchId])),
        );
    }

    /** When somebody last tried whether an alarm arrives. */
    public function lastTest(Site $site): ?Instant
    {
        $at = $this->connection->fetchOne(
            "SELECT extract(epoch FROM max(raised_at))::bigint FROM alarm WHERE site_id = ? AND cause LIKE 'test:%'",
            [$site->id->toRfc4122()],
        );

        return \is_int($at) ? Instant::ofEpoch($at) : null;
    }

    /**
     * Raises one; within a write. What was over and is so again asks for somebody again.
     *
     * @param AlarmCause $cause in the language of the site, which is recorded
     * @param array<string, AlarmCause> $inEach the same by language: who reads the alarm or is sent it, reads their own
     *
     * @return Alarm|null null where this cause asks for somebody already, or was settled
     */
    public function raise(Site $site, AlarmCause $cause, array $inEach): ?Alarm
    {
        $id = Uuid::v7()->toRfc4122();
        $now = $this->now->instant();
        $isNew =
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO alarm (id, site_id, cause, level, words, does, until_at, batch_id, door, effects, texts,
                  raised_at, next_step_at)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                ON CONFLICT (site_id, cause) DO UPDATE SET over_at = NULL, taken_at = NULL, taken_by = NULL,
                  put_off_until = NULL, step = 0, raised_at = excluded.raised_at, effects = excluded.effects,
                  texts = excluded.texts,
                  next_step_at = excluded.next_step_at
                WHERE alarm.over_at IS NOT NULL AND alarm.settled_at IS NULL
                SQL,
                [
                    $id,
                    $site->id->toRfc4122(),
                    $cause->key,
                    $cause->level->value,
                    $cause->words,
                    $cause->does,
                    $cause->until?->rfc3339(),
                    $cause->batchId,
                    $cause->door,
                    json_encode($cause->effects, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
                    self::texts($inEach),
                    $now->rfc3339(),
                    $now->rfc3339(),
                ],
            ) === 1;
        if (!$isNew) {
            return null;
        }
        $alarm = $this->caused($site, $cause->key) ?? throw new \LogicException('It was just raised.');
        $this->record($site, $alarm, null, 'raised', implode(' ', [$cause->words, $cause->does, ...$cause->effects]));

        return $alarm;
    }

    /**
     * What more follows from a cause that lasts.
     *
     * @param array<string, AlarmCause> $inEach
     */
    public function effects(Alarm $alarm, AlarmCause $cause, array $inEach): void
    {
        $this->connection->executeStatement('UPDATE alarm SET effects = ?, texts = ? WHERE id = ?', [
            json_encode($cause->effects, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE),
            self::texts($inEach),
            $alarm->id,
        ]);
    }

    /** @param array<string, AlarmCause> $inEach */
    private static function texts(array $inEach): string
    {
        $texts = array_map(
            static fn (AlarmCause $one): array => [
                'words' => $one->words,
                'does' => $one->does,
                'effects' => $one->effects,
            ],
            $inEach,
        );

        return json_encode($texts, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_FORCE_OBJECT);
    }

    /** What raised it is no longer so. */
    public function over(Site $site, Alarm $alarm): void
    {
        $this->change($site, $alarm, null, 'over', '', 'over_at = :now, next_step_at = NULL');
    }

    /** "I take it": nobody else is told. It settles nothing. */
    public function take(Alarm $alarm, Account $by): void
    {
        $this->change($by->site, $alarm, $by, 'taken', '', 'taken_at = :now, taken_by = :by, next_step_at = NULL');
    }

    public function settle(Alarm $alarm, Account $by, string $words): void
    {
        $this->change($by->site, $alarm, $by, 'settled', $words, 'settled_at = :now, next_step_at = NULL');
    }

    public function putOff(Alarm $alarm, Account $by, int $minutes, string $reason): void
    {
        $until = $this->now->instant()->plus(Span::ofMinutes($minutes));
        $this->change(
            $by->site,
            $alarm,
            $by,
            'put_off',
            "$minutes min: $reason",
            'put_off_until = :until::timestamptz, '
            .'next_step_at = CASE WHEN next_step_at IS NULL THEN NULL ELSE :until::timestamptz END',
            ['until' => $until->rfc3339()],
        );
    }

    /** Who in line is told next, and when; null where nobody is left. */
    public function step(Alarm $alarm, int $step, ?Instant $when): void
    {
        $this->connection->executeStatement('UPDATE alarm SET step = ?, next_step_at = ? WHERE id = ?', [
            $step,
            $when?->rfc3339(),
            $alarm->id,
        ]);
    }

    /** @param 'raised'|'told'|'escalated'|'taken'|'put_off'|'settled'|'over' $type */
    public function record(Site $site, Alarm $alarm, ?Account $by, string $type, string $words): void
    {
        $now = $this->now->instant()->rfc3339();
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO alarm_event (id, site_id, alarm_id, batch_id, at, recorded_at, account_id, initials, type,
              words)
            VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
            SQL,
            [
                Uuid::v7()->toRfc4122(),
                $site->id->toRfc4122(),
                $alarm->id,
                $alarm->batchId,
                $now,
                $now,
                $by?->id->toRfc4122(),
                $by->initials ?? '',
                $type,
                $words,
            ],
        );
    }

    /**
     * @param 'taken'|'put_off'|'settled'|'over' $type
     * @param array<string, string> $more
     */
    private function change(
        Site $site,
        Alarm $alarm,
        ?Account $by,
        string $type,
        string $words,
        string $set,
        array $more = [],
    ): void {
        $this->ledger->write($site, function () use ($site, $alarm, $by, $type, $words, $set, $more): void {
            // Once: two who tap at the same moment took it once, and what is over stays so.
            $isFirst = match ($type) {
                'taken' => 'AND taken_at IS NULL',
                'put_off' => '',
                default => 'AND over_at IS NULL AND settled_at IS NULL',
            };
            $named = ['now' => $this->now->instant()->rfc3339(), 'by' => $by->initials ?? ''];
            $used = array_filter(
                $named,
                static fn (string $name): bool => str_contains($set, ':'.$name),
                \ARRAY_FILTER_USE_KEY,
            );
            $changed = $this->connection->executeStatement(
                "UPDATE alarm SET $set WHERE id = :id $isFirst",
                ['id' => $alarm->id] + $more + $used,
            );
            if ($changed === 1) {
                $this->record($site, $alarm, $by, $type, $words);
            }
        });
    }

    /**
     * @param list<string|int> $parameters
     *
     * @return list<Alarm>
     */
    private function read(string $rest, array $parameters): array
    {
        /**
         * @var list<array{id: string, cause: string, level: string, words: string, does: string, texts: string,
         *     until_at: int|null, batch_id: string|null, door: string, effects: string, raised_at: int,
         *     over_at: int|null, taken_at: int|null, taken_by: string|null, settled_at: int|null,
         *     put_off_until: int|null, step: int, next_step_at: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(self::SELECT.' '.$rest, $parameters);

        $language = $this->locale->getLocale();

        return array_map(static function (array $row) use ($language): Alarm {
            /** @var list<string> $effects */
            $effects = json_decode($row['effects'], true, flags: \JSON_THROW_ON_ERROR);
            /** @var array<string, array{words: string, does: string, effects: array<int, string>}> $texts */
            $texts = json_decode($row['texts'], true, flags: \JSON_THROW_ON_ERROR);
            $text = $texts[$language] ?? ['words' => $row['words'], 'does' => $row['does'], 'effects' => $effects];

            return new Alarm(
                $row['id'],
                $row['cause'],
                AlarmLevel::from($row['level']),
                $text['words'],
                $text['does'],
                self::instant($row['until_at']),
                $row['batch_id'],
                $row['door'],
                array_values($text['effects']),
                Instant::ofEpoch($row['raised_at']),
                self::instant($row['over_at']),
                self::instant($row['taken_at']),
                $row['taken_by'],
                self::instant($row['settled_at']),
                self::instant($row['put_off_until']),
                $row['step'],
                self::instant($row['next_step_at']),
            );
        }, $rows);
    }

    private static function instant(?int $epoch): ?Instant
    {
        return $epoch === null ? null : Instant::ofEpoch($epoch);
    }
}
