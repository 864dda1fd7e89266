<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;

/**
 * Everything of a range of days in open formats: records one a line, readings and events as tables. One batch is in
 * memory at a time.
 */
final readonly class RecordExport
{
    public const READING_COLUMNS = [
        'batch',
        'tag',
        'product',
        'event',
        'at_utc',
        'by',
        'piece',
        'spot',
        'value',
        'unit',
        'thermometer',
        'replaced_by',
    ];

    public const SEAL_COLUMNS = ['day', 'link', 'digest'];

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private StoredRecords $records,
        private SiteDays $days,
        private Imports $imports,
    ) {
    }

    /** @return \Generator<string> `verjuicer-record/1`, one a line */
    public function ndjson(Site $site, Instant $from, Instant $to): \Generator
    {
        foreach ($this->records($site, $from, $to) as [, $record]) {
            yield Writer::write($record, true)."\n";
        }
    }

    /** @return \Generator<string> */
    public function readings(Site $site, Instant $from, Instant $to): \Generator
    {
        yield Csv::line(self::READING_COLUMNS);
        foreach ($this->records($site, $from, $to) as [$tag, $record]) {
            $replacedBy = self::replaced($record);
            foreach ($record->events as $event) {
                $reading = $event->detail;
                if ($reading instanceof Reading) {
                    yield Csv::line([
                        $record->code,
                        $tag,
                        $record->product->name,
                        $event->id,
                        $event->at->rfc3339(),
                        $event->by,
                        $reading->piece,
                        $reading->spot,
                        $reading->temp->number(),
                        $reading->temp->unit->value,
                        $reading->thermometer,
                        $replacedBy[$event->id] ?? null,
                    ]);
                }
            }
        }
    }

    /** @return \Generator<string> */
    public function events(Site $site, Instant $from, Instant $to): \Generator
    {
        yield from self::table($this->records($site, $from, $to));
    }

    /** @return \Generator<string> the events, as a table, of every batch to which something was recorded since */
    public function eventsSince(Site $site, Instant $since): \Generator
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT b.id FROM batch b WHERE b.site_id = :site AND EXISTS ('
            .'SELECT 1 FROM event e WHERE e.batch_id = b.id AND e.recorded_at >= :since) ORDER BY b.begun_at, b.code',
            ['site' => $site->id->toRfc4122(), 'since' => $since->rfc3339()],
        );
        yield from self::table($this->read($this->each($ids)));
    }

    /**
     * @param iterable<array{int, Record}> $records
     *
     * @return \Generator<string>
     */
    private static function table(iterable $records): \Generator
    {
        yield Csv::line(EventTable::columns());
        foreach ($records as [$tag, $record]) {
            $replacedBy = self::replaced($record);
            foreach (array_values($record->events) as $index => $event) {
                yield Csv::line(
                    EventTable::row($tag, $record, $event, $index === 0, $replacedBy[$event->id] ?? null),
                );
            }
        }
    }

    /** @return \Generator<string> the digest of the chain at the end of every day, to be kept elsewhere */
    public function seals(Site $site): \Generator
    {
        yield Csv::line(self::SEAL_COLUMNS);
        foreach ($this->days->ranges($site) as $seal) {
            yield Csv::line([$seal['day'], $seal['position'], $seal['digest']]);
        }
    }

    /**
     * @return \Generator<Batch> begun in the range, by that time; portions after the batch they were split from. A
     *     partly imported one is left out.
     */
    public function batches(Site $site, Instant $from, Instant $to): \Generator
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT id FROM batch WHERE site_id = ? AND begun_at >= ? AND begun_at < ? ORDER BY begun_at, code',
            [$site->id->toRfc4122(), $from->rfc3339(), $to->rfc3339()],
        );
        yield from $this->each(array_diff($ids, array_keys($this->imports->unfinished($site))));
    }

    /**
     * @param iterable<string> $ids
     *
     * @return \Generator<Batch> one at a time in memory
     */
    private function each(iterable $ids): \Generator
    {
        foreach ($ids as $id) {
            $batch = $this->entities->find(Batch::class, Uuid::fromString($id));
            if ($batch !== null) {
                yield $batch;
                $this->entities->detach($batch);
            }
        }
    }

    /** @return \Generator<array{int, Record}> tag and record of each */
    private function records(Site $site, Instant $from, Instant $to): \Generator
    {
        yield from $this->read($this->batches($site, $from, $to));
    }

    /**
     * @param iterable<Batch> $batches
     *
     * @return \Generator<array{int, Record}>
     */
    private function read(iterable $batches): \Generator
    {
        foreach ($batches as $batch) {
            yield [$batch->tag, $this->records->of($batch)];
        }
    }

    /** @return array<string, string> */
    private static function replaced(Record $record): array
    {
        $replaced = [];
        foreach ($record->events as $event) {
            if ($event->replaces !== null) {
                $replaced[$event->replaces] = $event->id;
            }
        }

        return $replaced;
    }
}
