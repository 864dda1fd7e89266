<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\TagInUse;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Writer;

/**
 * Adds events to a batch; the only writer of events. Any number of them takes one lock and a few statements, and
 * listeners are notified once.
 */
final readonly class EventLog
{
    private const ENVELOPE = [
        'id' => true,
        'at' => true,
        'by' => true,
        'type' => true,
        'replaces' => true,
        'reason' => true,
        'recorded_at' => true,
    ];
    /** How far a client's clock may be ahead. */
    private const SKEW_SECONDS = 60;
    private const AT_ONCE = 500;

    public function __construct(private Connection $connection, private Ledger $ledger, private Now $now)
    {
    }

    /**
     * Saves the events in order. A repeated event with the same id and content is saved once. They are recorded now;
     * only a copy of an event recorded here keeps its time.
     *
     * @return bool whether anything new was kept
     *
     * @throws EventConflict if an id belongs to a different entry, a replaced event is not in the batch, or an event
     *     lies ahead of now
     * @throws TagInUse if the batch would be reopened while its tag is on another open one
     */
    public function append(Batch $batch, Account $by, Event ...$events): bool
    {
        if ($events === []) {
            return false;
        }
        $latest = $this->now->instant()->plus(Span::ofSeconds(self::SKEW_SECONDS));
        foreach ($events as $event) {
            if ($event->at->isAfter($latest)) {
                throw EventConflict::inTheFuture();
            }
        }

        return $this->ledger->write($batch->site, fn (): bool => $this->appended($batch, $by, array_values($events)));
    }

    /**
     * The same for the first parts of many events, within a write that is one: whether the batch is open is known with
     * the last.
     */
    public function appendPart(Batch $batch, Account $by, Event ...$events): void
    {
        $this->appended($batch, $by, array_values($events), true);
    }

    /** @param list<Event> $events */
    private function appended(Batch $batch, Account $by, array $events, bool $isPart = false): bool
    {
        $this->refuseStrangers($batch, $events);
        $inserted = [];
        foreach (array_chunk($events, self::AT_ONCE) as $chunk) {
            $inserted += $this->insert($batch, $by, $chunk);
        }
        foreach ($events as $event) {
            if (!isset($inserted[$event->id])) {
                $this->refuseAnother($batch, $by, $event);
            }
        }
        if ($inserted === []) {
            return false;
        }
        foreach ($isPart ? [] : $events as $event) {
            if ($event->detail instanceof BeginsStage || $event->replaces !== null) {
                $this->holdTag($batch);
                break;
            }
        }
        $this->ledger->changed($batch);

        return true;
    }

    /**
     * A replaced event must be of this batch.
     *
     * @param list<Event> $events
     */
    private function refuseStrangers(Batch $batch, array $events): void
    {
        $ids = array_map(static fn (Event $event): string => $event->id, $events);
        $replaced = array_filter(
            array_map(static fn (Event $event): ?string => $event->replaces, $events),
            static fn (?string $id): bool => $id !== null,
        );
        $elsewhere = array_values(array_unique(array_diff($replaced, $ids)));
        if ($elsewhere === []) {
            return;
        }
        $found = $this->connection->fetchOne(
            'SELECT count(*) FROM event WHERE batch_id = ? AND id IN (?)',
            [$batch->id->toRfc4122(), $elsewhere],
            [1 => ArrayParameterType::STRING],
        );
        if ($found !== \count($elsewhere)) {
            throw EventConflict::replacesNothing();
        }
    }

    /**
     * @param list<Event> $events
     *
     * @return array<string, true> the ids of those that were not there
     */
    private function insert(Batch $batch, Account $by, array $events): array
    {
        $rows = $values = [];
        $now = $this->now->instant();
        foreach ($events as $event) {
            $rows[] = '(?, ?, ?, ?, ?, ?, ?, ?, ?, ?)';
            array_push(
                $values,
                $event->id,
                $batch->id->toRfc4122(),
                $event->at->rfc3339(),
                ($event->recordedAt ?? $now)->rfc3339(),
                $by->id->toRfc4122(),
                $event->by,
                $event->kind()->name(),
                self::members($event),
                $event->replaces,
                $event->reason,
            );
        }
        $into =
            'INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members, replaces, '
            .'reason) VALUES ';
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            $into.implode(', ', $rows).' ON CONFLICT (id) DO NOTHING RETURNING id',
            $values,
        );

        return array_fill_keys($ids, true);
    }

    /** A retry sends the same entry; its time may have been filled in again, so it is not compared. */
    private function refuseAnother(Batch $batch, Account $by, Event $event): void
    {
        $isSame = $this->connection->fetchOne(
            <<<'SQL'
            SELECT 1 FROM event
            WHERE id = ? AND batch_id = ? AND account_id = ? AND type = ? AND members = ?::jsonb
              AND replaces IS NOT DISTINCT FROM ?
            SQL,
            [
                $event->id,
                $batch->id->toRfc4122(),
                $by->id->toRfc4122(),
                $event->kind()->name(),
                self::members($event),
                $event->replaces,
            ],
        );
        if ($isSame === false) {
            throw EventConflict::idTaken();
        }
    }

    private static function members(Event $event): string
    {
        $members = (object) array_diff_key((array) Writer::event($event), self::ENVELOPE);

        return json_encode($members, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    /**
     * A tag is of one open batch at a time: this one holds it while it is open, and gives it up at its end. Within a
     * write.
     *
     * @throws TagInUse if another open batch has it
     */
    public function holdTag(Batch $batch): void
    {
        $id = $batch->id->toRfc4122();
        if ($this->hasEnded($batch)) {
            $this->connection->executeStatement('DELETE FROM open_tag WHERE batch_id = ?', [$id]);

            return;
        }
        try {
            $this->connection->executeStatement(
                'INSERT INTO open_tag (site_id, tag, batch_id) VALUES (?, ?, ?) ON CONFLICT (batch_id) DO NOTHING',
                [$batch->site->id->toRfc4122(), $batch->tag, $id],
            );
        } catch (UniqueConstraintViolationException) {
            throw TagInUse::again();
        }
    }

    /** Whether its last stage is one that ends a batch. */
    private function hasEnded(Batch $batch): bool
    {
        $shared = SharedEvents::of($batch);
        $last = $this->connection->fetchOne(
            <<<SQL
            SELECT e.type FROM event e
            WHERE ($shared->condition) AND e.type IN (:stages)
              AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            ORDER BY e.at DESC, e.seq DESC LIMIT 1
            SQL,
            $shared->parameters + ['stages' => EventKinds::stages()],
            ['stages' => ArrayParameterType::STRING],
        );

        return \is_string($last) && EventKinds::named($last)?->endsBatch() === true;
    }
}
