<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\TagInUse;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Writer;

/**
 * Takes the tables of readings and of events, as they are exported, into batches that are there, each event once. All
 * of a file is looked through before anything of it is taken.
 */
final readonly class TableImport
{
    private const JSON = \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION;

    public function __construct(
        private EntityManagerInterface $entities,
        private StoredRecords $records,
        private RecordImport $newBatches,
        private Reader $reader,
        private EventLog $log,
        private Forecasts $forecasts,
        private Now $now,
    ) {
    }

    public function import(
        string $text,
        Account $by,
        bool $isPreview,
        ImportProgress $taking = new ImportProgress(),
    ): ImportReport {
        $report = new ImportReport();
        $unknown = [];
        $new = $this->read($text, $by, $report, $unknown);
        if ($unknown !== [] && $report->isGood()) {
            $this->begin($unknown, $by, $isPreview, $report, $taking);
        }
        $taking->total = $taking->done + array_sum(array_map(static fn (array $one): int => \count($one[1]), $new));
        try {
            foreach ($report->isGood() && !$isPreview ? $new : [] as [$batch, $events]) {
                $taken = array_map(
                    static fn (Event $event): Event => $event->takenIn($by->initials, $event->id, $event->replaces),
                    $events,
                );
                $done = 0;
                foreach (ChunkedAppend::of($taken) as $part) {
                    $done += \count($part);
                    // A write of its own with notified listeners: the board always shows the record's state. The
                    // forecast follows the last write.
                    $this->forecasts->while(
                        $done < \count($taken) ? ForecastTiming::Rarely : ForecastTiming::ForIt,
                        fn () => $this->log->append($batch, $by, ...$part),
                    );
                    $taking->tell(\count($part));
                }
            }
        } catch (EventConflict|TagInUse) {
            $report->refuse(
                1,
                'an event does not go with what is recorded here: it has the id of another, '
                .'or opens a batch whose tag is in use. '
                .\sprintf('What stood before it is in (%d of %d events).', $taking->done, $taking->total),
            );
        }

        return $report;
    }

    /**
     * Begins the batches that are not here, each from the record that stands with its first event.
     *
     * @param array<int, \stdClass> $unknown records in the open format, by the line of the table
     */
    private function begin(
        array $unknown,
        Account $by,
        bool $isPreview,
        ImportReport $report,
        ImportProgress $taking,
    ): void {
        $lines = array_map(static fn (\stdClass $one): string => json_encode($one, self::JSON), $unknown);
        $of = $this->newBatches->import(implode("\n", $lines), $by, $isPreview, $taking);
        foreach ($of->refused as $refused) {
            $report->refuse(array_keys($unknown)[$refused['line'] - 1] ?? 1, $refused['why']);
        }
        $report->different = $of->different;
        foreach ($unknown as $record) {
            $batch = $record->batch ?? null;
            $report->new += $batch instanceof \stdClass && \is_array($batch->events) ? \count($batch->events) : 0;
        }
    }

    /**
     * @param array<int, \stdClass> $unknown batches that are not here: records in the open format, by the line
     *
     * @return list<array{Batch, list<Event>}> new events of batches that are here
     */
    private function read(string $text, Account $by, ImportReport $report, array &$unknown): array
    {
        $table = Csv::read($text);
        $header = array_flip($table[0] ?? []);
        $isAllInOne = isset($header[EventTable::ALL_IN_ONE]);
        $needed = ['batch', 'event', 'at_utc', 'by', 'type', 'replaces', 'reason', 'replaced_by'];
        $isEvents = array_diff($needed, array_keys($header)) === [];
        if (!$isEvents && array_diff(RecordExport::READING_COLUMNS, array_keys($header)) !== []) {
            $report->refuse(
                1,
                'the first line must name every column of an export of readings or of events: see docs/format.',
            );

            return [];
        }
        $lines = $records = [];
        foreach (\array_slice($table, 1) as $index => $fields) {
            $field = static fn (string $name): string => $fields[$header[$name]] ?? '';
            $event = $isEvents ? EventTable::event($field, $isAllInOne) : self::reading($field);
            if ($event === null) {
                $report->refuse(
                    $index + 2,
                    \sprintf('"%s" must be a JSON object.', $isAllInOne ? EventTable::ALL_IN_ONE : 'extensions'),
                );
            } else {
                $lines[$field('batch')][$index + 2] = [$event, $field('replaced_by')];
                $records[$field('batch')] ??= isset($header[EventTable::RECORD]) ? $field(EventTable::RECORD) : '';
            }
        }
        $new = [];
        foreach ($lines as $code => $events) {
            $batch = $this->entities->getRepository(Batch::class)->findOneBy(['site' => $by->site, 'code' => $code]);
            $record = $batch === null ? json_decode($records[$code] ?? '') : null;
            if ($record instanceof \stdClass && ($record->batch ?? null) instanceof \stdClass) {
                $record->batch->events = array_column(array_values($events), 0);
                $unknown[(int) array_key_first($events)] = $record;
            } elseif ($batch === null) {
                $report->refuse(
                    (int) array_key_first($events),
                    \sprintf('there is no batch "%s" here: take in its record first.', $code),
                );
            } else {
                $new[] = [$batch, $this->ofBatch($batch, $events, $report)];
            }
        }

        return $new;
    }

    /**
     * Reads the lines of one batch together with its recorded events, by the reader of all records.
     *
     * @param array<int, array{\stdClass, string}> $lines by their number, each with the id of its replacement
     *
     * @return list<Event>
     */
    private function ofBatch(Batch $batch, array $lines, ImportReport $report): array
    {
        $data = Writer::toData($this->records->of($batch));
        \assert($data->batch instanceof \stdClass && \is_array($data->batch->events), 'a record has its events');
        $known = array_column($data->batch->events, 'id', 'id');
        $numbers = [];
        $reading = EventKinds::of(Reading::class)->name();
        $inTable = array_map(static fn (array $line): mixed => $line[0]->id ?? null, $lines);
        foreach ($lines as $number => [$event, $replacedBy]) {
            $id = $event->id ?? null;
            $isCorrected = $replacedBy !== '' && !isset($known[$replacedBy]) && !\in_array($replacedBy, $inTable, true);
            if (!\is_string($id) || !Uuid::isValid($id)) {
                $report->refuse($number, '"event" must be a UUID.');
            } elseif (self::isHere($batch, $id, $known)) {
                ++$report->known;
            } elseif (($event->type ?? null) === $reading && $isCorrected) {
                $report->refuse(
                    $number,
                    'it was corrected or taken back, and what did so is not in this table: take in the events.',
                );
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
                $member = preg_replace('#^/batch/events/\d+/?#', '', $problem->pointer);
                $report->refuse($numbers[$index] ?? 1, trim($member.' '.$problem->message));
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

    /**
     * Whether an event is here, by its id or by the one it was given here.
     *
     * @param array<mixed> $known by the ids of the events of the batch
     */
    private static function isHere(Batch $batch, string $id, array $known): bool
    {
        for ($one = $batch; $one !== null; $one = $one->parent) {
            if (isset($known[$id]) || isset($known[DuplicateDetection::derived($one->id->toRfc4122(), $id)])) {
                return true;
            }
        }

        return false;
    }

    /** @param \Closure(string): string $field */
    private static function reading(\Closure $field): \stdClass
    {
        $value = json_decode($field('value'));

        return (object) array_filter(
            [
                'id' => $field('event'),
                'at' => $field('at_utc'),
                'by' => $field('by'),
                'type' => EventKinds::of(Reading::class)->name(),
                'temp' => (object) [
                    strtolower($field('unit')) => \is_int($value) || \is_float($value) ? $value : $field('value'),
                ],
                'piece' => ctype_digit($field('piece')) ? (int) $field('piece') : $field('piece'),
                'spot' => $field('spot'),
                'thermometer' => $field('thermometer'),
            ],
            static fn (mixed $value): bool => $value !== '',
        );
    }
}
