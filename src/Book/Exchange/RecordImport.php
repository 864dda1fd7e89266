<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;

/** Takes records in the open format into a site, all of a file or nothing of it; a batch whose code is there already is known and left as it is. */
final readonly class RecordImport
{
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Reader $reader,
        private EventLog $log,
        private BoardLanes $lanes,
        private Thermometers $thermometers,
        private Now $now,
    ) {
    }

    /** @param string $text one record a line, or one record alone */
    public function import(string $text, Account $by, bool $isPreview): ImportReport
    {
        $report = new ImportReport();
        $records = $this->read($text, $report);
        if (!$report->isGood() || $isPreview) {
            foreach ($records as $record) {
                $this->isKnown($record, $by) ? ++$report->known : ++$report->new;
            }

            return $report;
        }
        $this->connection->transactional(function () use ($records, $by, $report): void {
            foreach ($records as $record) {
                if ($this->isKnown($record, $by)) {
                    ++$report->known;
                } else {
                    $this->keep($record, $by);
                    ++$report->new;
                }
            }
        });

        return $report;
    }

    /** @return list<Record> */
    private function read(string $text, ImportReport $report): array
    {
        $isOne = json_decode($text) instanceof \stdClass;
        $lines = $isOne ? [$text] : preg_split('/\r\n|\n/', $text, -1, \PREG_SPLIT_NO_EMPTY);
        $records = $codes = [];
        foreach ($lines === false ? [] : $lines as $index => $line) {
            try {
                $record = $this->reader->read($line);
                $ahead = array_filter($record->events, fn (Event $event): bool => $event->at->isAfter($this->now->instant()));
                if ($ahead !== [] || $record->product->pieces > self::MOST_PIECES) {
                    $report->refuse($index + 1, $ahead === [] ? \sprintf('/batch/product/pieces is more than %d: check the number.', self::MOST_PIECES) : \sprintf('event "%s" lies ahead of now: check its time.', mb_substr(array_values($ahead)[0]->id, 0, 40)));
                } elseif ($record->code === null || isset($codes[$record->code])) {
                    $report->refuse($index + 1, $record->code === null ? '/batch/code is missing: a batch needs its code to be found again.' : 'another line has the same batch code.');
                } else {
                    $codes[$record->code] = true;
                    $records[] = $record;
                }
            } catch (InvalidRecord $invalid) {
                foreach ($invalid->problems as $problem) {
                    $report->refuse($index + 1, trim($problem->pointer.' '.$problem->message));
                }
            }
        }
        if ($records === [] && $report->isGood()) {
            $report->refuse(1, 'there is no record in it.');
        }

        return $records;
    }

    private function isKnown(Record $record, Account $by): bool
    {
        return $this->connection->fetchOne('SELECT 1 FROM batch WHERE site_id = ? AND code = ?', [$by->site->id->toRfc4122(), $record->code]) !== false;
    }

    private function keep(Record $record, Account $by): void
    {
        $now = $this->now->instant();
        $all = Timeline::of($record, Instant::ofEpoch(\PHP_INT_MAX));
        $product = $record->product;
        $id = Uuid::v7();
        $plan = new BatchPlan(
            new Product($by->site, $product->name ?? '', $product->animal, $product->form, $product->integrity, null),
            $this->freeTag($record, $by, $all->end !== null),
            $product->pieces,
            $product->rawWeight === null ? null : intdiv($product->rawWeight->micrograms, 1_000_000),
            $product->stuffed,
            $product->wild,
            $product->advisory,
        );
        $begun = $all->events[0]->at ?? $now;
        $batch = new Batch($id, $by->site, $record->code ?? '', $plan, $record->rules, new \DateTimeImmutable($begun->rfc3339()), $by);
        $this->entities->persist($batch);
        $this->entities->flush();
        $ids = $this->ids($record, $id);
        foreach ($record->events as $event) {
            $this->log->append($batch, $by, $now, StoredRecords::imported($event, $by->initials, $ids));
        }
        $this->keepThermometers($record, $by);
        $this->lanes->refresh($batch, $now);
    }

    /**
     * An event keeps its id where it is a UUID that nobody has yet; else it gets one that follows from it.
     *
     * @return array<string, string>
     */
    private function ids(Record $record, Uuid $batch): array
    {
        $ids = [];
        foreach ($record->events as $event) {
            $isFree = Uuid::isValid($event->id) && $this->connection->fetchOne('SELECT 1 FROM event WHERE id = ?', [$event->id]) === false;
            $ids[$event->id] = $isFree ? $event->id : Uuid::v5($batch, $event->id)->toRfc4122();
        }

        return $ids;
    }

    private function keepThermometers(Record $record, Account $by): void
    {
        $known = [];
        foreach ($this->thermometers->of($by->site) as $thermometer) {
            $known[$thermometer->label] = $thermometer;
        }
        foreach ($record->thermometers as $one) {
            $thermometer = $known[$one->id] ?? new Thermometer($by->site, mb_substr($one->id, 0, 16));
            $this->entities->persist($thermometer);
            $this->entities->flush();
            foreach ($one->checks as $check) {
                $id = Uuid::v5($thermometer->id, $check->at->rfc3339().$check->method.$check->expected->tenths.$check->read->tenths.$check->read->unit->value);
                $isThere = $this->connection->fetchOne('SELECT 1 FROM thermometer_check WHERE thermometer_id = ? AND at = ? AND method = ?', [$thermometer->id->toRfc4122(), $check->at->rfc3339(), $check->method ?? 'ice']) !== false;
                if (!$isThere) {
                    $this->thermometers->check($id, $thermometer, $by, $check->at, $this->now->instant(), $check->method ?? 'ice', $check->expected, $check->read, 'kept', null);
                }
            }
        }
    }

    /** Its own tag where it has one that fits; of an open batch only if no other open one has it. */
    private function freeTag(Record $record, Account $by, bool $hasEnded): int
    {
        $tag = $record->unknownOfBatch['tag'] ?? null;
        $tag = \is_int($tag) && $tag >= 1 && $tag <= self::HIGHEST_TAG ? $tag : 1;
        $inUse = array_fill_keys($this->lanes->tagsInUse($by->site), true);
        while (!$hasEnded && isset($inUse[$tag])) {
            $tag = $tag % self::HIGHEST_TAG + 1;
        }

        return $tag;
    }
}
