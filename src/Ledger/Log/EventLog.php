<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Writer;

/** Adds events to a batch; the only writer of events. The board's lane changes in the same transaction. */
final readonly class EventLog
{
    private const ENVELOPE = ['id' => true, 'at' => true, 'by' => true, 'type' => true, 'replaces' => true, 'reason' => true];

    /** How far a client's clock may be ahead. */
    private const SKEW_SECONDS = 60;

    public function __construct(private Connection $connection, private BoardLanes $lanes, private SiteChain $chain, private Now $now)
    {
    }

    /**
     * Keeps the events in their order. One with an id that is already kept, and the same in all else, is kept once.
     *
     * @return bool whether anything new was kept
     *
     * @throws EventConflict if an id belongs to a different entry, a replaced event is not in the batch, an event lies ahead of
     *                       now, or the batch would be open again beside another of its tag
     */
    public function append(Batch $batch, Account $by, Instant $recordedAt, Event ...$events): bool
    {
        $latest = $this->now->instant()->plus(Span::ofSeconds(self::SKEW_SECONDS));
        foreach ($events as $event) {
            if ($event->at->isAfter($latest)) {
                throw EventConflict::inTheFuture();
            }
        }
        try {
            return $this->appended($batch, $by, $recordedAt, ...$events);
        } catch (UniqueConstraintViolationException) {
            throw EventConflict::tagInUse();
        }
    }

    private function appended(Batch $batch, Account $by, Instant $recordedAt, Event ...$events): bool
    {
        return $this->connection->transactional(function () use ($batch, $by, $recordedAt, $events): bool {
            $this->chain->lock($batch->site);
            // One writer a batch at a time, so that the lane is made from all of its events.
            $this->connection->executeStatement('SELECT 1 FROM batch WHERE id = ? FOR UPDATE', [$batch->id->toRfc4122()]);
            $isNew = false;
            foreach ($events as $event) {
                $isNew = $this->insert($batch, $by, $recordedAt, $event) || $isNew;
            }
            if ($isNew) {
                $this->lanes->refreshWithPortions($batch, $recordedAt);
            }

            return $isNew;
        });
    }

    private function insert(Batch $batch, Account $by, Instant $recordedAt, Event $event): bool
    {
        if ($event->replaces !== null && $this->connection->fetchOne('SELECT 1 FROM event WHERE id = ? AND batch_id = ?', [$event->replaces, $batch->id->toRfc4122()]) === false) {
            throw EventConflict::replacesNothing();
        }
        $row = [
            'id' => $event->id,
            'batch_id' => $batch->id->toRfc4122(),
            'at' => $event->at->rfc3339(),
            'account_id' => $by->id->toRfc4122(),
            'initials' => $event->by,
            'type' => $event->type->value,
            'members' => json_encode((object) array_diff_key((array) Writer::event($event), self::ENVELOPE), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
            'replaces' => $event->replaces,
            'reason' => $event->reason,
        ];
        $inserted = $this->connection->executeStatement(<<<'SQL'
            INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members, replaces, reason)
            VALUES (:id, :batch_id, :at, :recorded_at, :account_id, :initials, :type, :members, :replaces, :reason)
            ON CONFLICT (id) DO NOTHING
            SQL, $row + ['recorded_at' => $recordedAt->rfc3339()]);
        if ($inserted === 1) {
            return true;
        }
        // A retry brings the same entry; its time may have been filled in anew, so it is not compared.
        $isSame = $this->connection->fetchOne(<<<'SQL'
            SELECT 1 FROM event
            WHERE id = :id AND batch_id = :batch_id AND account_id = :account_id AND type = :type AND members = :members::jsonb
              AND replaces IS NOT DISTINCT FROM :replaces
            SQL, array_intersect_key($row, ['id' => 1, 'batch_id' => 1, 'account_id' => 1, 'type' => 1, 'members' => 1, 'replaces' => 1]));
        if ($isSame === false) {
            throw EventConflict::idTaken();
        }

        return false;
    }
}
