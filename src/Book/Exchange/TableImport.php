<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Writer;

/** Takes the tables of readings and of events, as they are exported, into batches that are there: all of a file or nothing of it, each event once. */
final readonly class TableImport
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities, private StoredRecords $records, private Reader $reader, private EventLog $log, private Now $now)
    {
    }

    public function import(string $text, Account $by, bool $isPreview): ImportReport
    {
        $report = new ImportReport();
        $new = $this->read($text, $by, $report);
        if ($report->isGood() && !$isPreview) {
            try {
                $this->connection->transactional(function () use ($new, $by): void {
                    foreach ($new as [$batch, $events]) {
                        foreach ($events as $event) {
                            $this->log->append($batch, $by, $this->now->instant(), StoredRecords::imported($event, $by->initials));
                        }
                    }
                });
            } catch (EventConflict) {
                $report->refuse(1, 'an event does not go with what is recorded here: it has the id of another, or opens a batch whose tag is in use.');
            }
        }

        return $report;
    }

    /** @return list<array{Batch, list<Event>}> what is new, by batch */
    private function read(string $text, Account $by, ImportReport $report): array
    {
        $table = Csv::read($text);
        $header = array_flip($table[0] ?? []);
        $isEvents = array_diff(RecordExport::EVENT_COLUMNS, array_keys($header)) === [];
        if (!$isEvents && array_diff(RecordExport::READING_COLUMNS, array_keys($header)) !== []) {
            $report->refuse(1, 'the first line must name every column of an export of readings or of events: see docs/format.');

            return [];
        }
        $lines = [];
        foreach (\array_slice($table, 1) as $index => $fields) {
            $field = static fn (string $name): string => $fields[$header[$name]] ?? '';
            $event = $isEvents ? self::event($field) : self::reading($field);
            if ($event === null) {
                $report->refuse($index + 2, '"members" must be a JSON object.');
            } else {
                $lines[$field('batch')][$index + 2] = [$event, $field('replaced_by')];
            }
        }
        $new = [];
        foreach ($lines as $code => $events) {
            $batch = $this->entities->getRepository(Batch::class)->findOneBy(['site' => $by->site, 'code' => $code]);
            if ($batch === null) {
                $report->refuse((int) array_key_first($events), \sprintf('there is no batch "%s" here: take in its record first.', $code));
            } else {
                $new[] = [$batch, $this->ofBatch($batch, $events, $report)];
            }
        }

        return $new;
    }

    /**
     * Reads the lines of one batch together with what is recorded of it, by the reader every record goes through.
     *
     * @param array<int, array{\stdClass, string}> $lines by their number, each with the id of what replaces it
     *
     * @return list<Event>
     */
    private function ofBatch(Batch $batch, array $lines, ImportReport $report): array
    {
        $data = Writer::toData($this->records->of($batch));
        \assert($data->batch instanceof \stdClass && \is_array($data->batch->events), 'a record has its events');
        $known = array_column($data->batch->events, 'id', 'id');
        $numbers = [];
        foreach ($lines as $number => [$event, $replacedBy]) {
            $id = $event->id;
            if (!\is_string($id) || !Uuid::isValid($id)) {
                $report->refuse($number, '"event" must be a UUID.');
            } elseif (isset($known[$id])) {
                ++$report->known;
            } elseif ($event->type === EventType::Reading->value && $replacedBy !== '' && !isset($known[$replacedBy]) && !\in_array($replacedBy, array_map(static fn (array $line): mixed => $line[0]->id, $lines), true)) {
                $report->refuse($number, 'it was corrected or taken back, and what did so is not in this table: take in the events.');
            } else {
                $numbers[\count($data->batch->events)] = $number;
                $data->batch->events[] = $event;
            }
        }
        try {
            $events = $this->reader->readData($data)->events;
        } catch (InvalidRecord $invalid) {
            foreach ($invalid->problems as $problem) {
                $index = preg_match('#^/batch/events/(\d+)#', $problem->pointer, $part) === 1 ? (int) $part[1] : -1;
                $report->refuse($numbers[$index] ?? 1, trim((string) preg_replace('#^/batch/events/\d+/?#', '', $problem->pointer).' '.$problem->message));
            }

            return [];
        }
        $new = array_intersect_key($events, $numbers);
        foreach ($new as $index => $event) {
            if ($event->at->isAfter($this->now->instant())) {
                $report->refuse($numbers[$index], 'it lies ahead of now: check its time.');
            }
        }
        $new = array_values($new);
        $report->new += \count($new);

        return $new;
    }

    /** @param \Closure(string): string $field */
    private static function event(\Closure $field): ?\stdClass
    {
        $members = json_decode($field('members'));
        if (!$members instanceof \stdClass) {
            return null;
        }

        return (object) (array_filter(['id' => $field('event'), 'at' => $field('at_utc'), 'by' => $field('by'), 'type' => $field('type'), 'replaces' => $field('replaces'), 'reason' => $field('reason'), 'recorded_at' => $field('recorded_at_utc')], static fn (string $value): bool => $value !== '') + (array) $members);
    }

    /** @param \Closure(string): string $field */
    private static function reading(\Closure $field): \stdClass
    {
        $value = json_decode($field('value'));

        return (object) array_filter([
            'id' => $field('event'), 'at' => $field('at_utc'), 'by' => $field('by'), 'type' => EventType::Reading->value,
            'temp' => (object) [strtolower($field('unit')) => \is_int($value) || \is_float($value) ? $value : $field('value')],
            'piece' => ctype_digit($field('piece')) ? (int) $field('piece') : $field('piece'), 'spot' => $field('spot'), 'thermometer' => $field('thermometer'),
        ], static fn (mixed $value): bool => $value !== '');
    }
}
