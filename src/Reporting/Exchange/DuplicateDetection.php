<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\PitShare;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;

/**
 * Whether a record is one that is here: by the ids of its events. Two kitchens have a batch 2026-1124-7; they are two.
 */
final readonly class DuplicateDetection
{
    public function __construct(
        private Connection $connection,
        private Batches $batches,
        private StoredRecords $records,
    ) {
    }

    /** The batch of a site that a record is of; null where it is a new one. */
    public function of(Site $site, Record $record): ?Batch
    {
        $ids = self::uuids($record);
        // A portion shares events with the batch it was split from, never the other way round.
        $isPortion = $record->portion === null ? 'NULL' : 'NOT NULL';
        $found = $ids === [] ? false : $this->connection->fetchOne(
            'SELECT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id '
            ."WHERE b.site_id = ? AND e.id IN (?) AND b.parent_id IS $isPortion "
            .'GROUP BY e.batch_id ORDER BY count(*) DESC LIMIT 1',
            [$site->id->toRfc4122(), $ids],
            [1 => ArrayParameterType::STRING],
        );
        if (\is_string($found)) {
            return $this->batches->get($found);
        }
        $named = $this->connection->fetchOne('SELECT id FROM batch WHERE site_id = ? AND code = ?', [
            $site->id->toRfc4122(),
            $record->code,
        ]);
        if (!\is_string($named)) {
            return null;
        }
        $taken = array_map(
            static fn (Event $event): string => self::derived($named, $event->id),
            $record->events,
        );
        $isHere = $record->events === [] || $this->connection->fetchOne(
            'SELECT 1 FROM event WHERE batch_id = ? AND id IN (?) LIMIT 1',
            [$named, [...$ids, ...$taken]],
            [1 => ArrayParameterType::STRING],
        ) !== false;

        return $isHere ? $this->batches->get($named) : null;
    }

    /** How many events of a record are not in the batch that is here, or are otherwise there. */
    public function differences(Batch $batch, Record $record): int
    {
        $there = [];
        foreach ($this->records->of($batch)->events as $event) {
            $there[$event->id] = self::content($event);
        }
        $different = 0;
        $parent = $batch->parent?->id->toRfc4122() ?? '';
        foreach ($record->events as $event) {
            $known = $there[strtolower($event->id)]
                ?? $there[self::derived($batch->id->toRfc4122(), $event->id)]
                ?? ($parent === '' ? null : $there[self::derived($parent, $event->id)] ?? null);
            $different += $known === self::content($event) ? 0 : 1;
        }

        return $different;
    }

    /** The id for an event without one, or with one that belongs to another site's event. */
    public static function derived(string $batchId, string $id): string
    {
        return Uuid::v5(Uuid::fromString($batchId), $id)->toRfc4122();
    }

    private static function content(Event $event): string
    {
        return json_encode(
            [$event->at->rfc3339(), $event->by, $event->kind()->name(), Writer::members($event), $event->reason],
            \JSON_THROW_ON_ERROR,
        );
    }

    /** @return list<string> ids of its own entries: the log of a pit is in every record that was there */
    private static function uuids(Record $record): array
    {
        $own = array_filter(
            $record->events,
            static fn (Event $event): bool => ($event->extensions[PitShare::MARK] ?? false) !== true,
        );

        return array_map(
            strtolower(...),
            array_values(array_filter(array_column($own, 'id'), Uuid::isValid(...))),
        );
    }
}
