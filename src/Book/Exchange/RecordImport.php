<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Check\ThermometerChecks;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;

/**
 * Takes in records in the open format, one a line: all of a file or nothing of it; a batch that is there already is
 * known and not touched.
 */
final readonly class RecordImport
{
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Reader $reader,
        private Ledger $ledger,
        private NewBatches $newBatches,
        private Batches $batches,
        private Thermometers $thermometers,
        private ThermometerChecks $checks,
        private Now $now,
    ) {
    }

    /**
     * @param string $text one record a line, or one record alone
     * @param \Closure(int, int): void|null $told how many are in, of how many
     */
    public function import(string $text, Account $by, bool $isPreview, ?\Closure $told = null): ImportReport
    {
        $report = new ImportReport();
        $records = $this->read($text, $report);
        if (!$report->isGood() || $isPreview) {
            foreach ($records as $record) {
                $this->isKnown($record, $by) ? ++$report->known : ++$report->new;
            }

            return $report;
        }
        $this->ledger->write($by->site, function () use ($records, $by, $report, $told): void {
            foreach ($records as $index => $record) {
                if ($this->isKnown($record, $by)) {
                    ++$report->known;
                } else {
                    $this->keep($record, $by);
                    ++$report->new;
                }
                if ($told !== null) {
                    $told($index + 1, \count($records));
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
            } catch (InvalidRecord $invalid) {
                foreach ($invalid->problems as $problem) {
                    $report->refuse($index + 1, trim($problem->pointer.' '.$problem->message));
                }

                continue;
            }
            $refusal = $this->refusal($record, $codes);
            if ($refusal !== null) {
                $report->refuse($index + 1, $refusal);
            } else {
                $codes[$record->code] = true;
                $records[] = $record;
            }
        }
        if ($records === [] && $report->isGood()) {
            $report->refuse(1, 'there is no record in it.');
        }

        return $records;
    }

    /** @param array<string, true> $codes of the lines before it */
    private function refusal(Record $record, array $codes): ?string
    {
        foreach ($record->events as $event) {
            if ($event->at->isAfter($this->now->instant())) {
                return \sprintf('event "%s" lies ahead of now: check its time.', mb_substr($event->id, 0, 40));
            }
        }

        return match (true) {
            $record->product->pieces > self::MOST_PIECES => \sprintf(
                '/batch/product/pieces is more than %d: check the number.',
                self::MOST_PIECES,
            ),
            $record->code === null => '/batch/code is missing: a batch needs its code to be found again.',
            isset($codes[$record->code]) => 'another line has the same batch code.',
            default => null,
        };
    }

    private function isKnown(Record $record, Account $by): bool
    {
        $batch = 'SELECT 1 FROM batch WHERE site_id = ? AND code = ?';

        return $this->connection->fetchOne($batch, [$by->site->id->toRfc4122(), $record->code]) !== false;
    }

    private function keep(Record $record, Account $by): void
    {
        $all = Timeline::of($record, Instant::ofEpoch(\PHP_INT_MAX));
        $product = $record->product;
        $plan = new BatchPlan(
            new Product($by->site, $product->name ?? '', $product->animal, $product->form, $product->integrity, null),
            $this->freeTag($record, $by, $all->end !== null),
            $product->pieces,
            $product->rawWeight?->grams(),
            $product->stuffed,
            $product->wild,
            $product->advisory,
            pieceNumbers: $product->pieceNumbers,
        );
        $id = Uuid::v7();
        $ids = $this->ids($record, $id);
        $events = array_map(
            static fn (Event $event): Event => $event->takenIn(
                $by->initials,
                $ids[$event->id],
                $event->replaces === null ? null : $ids[$event->replaces] ?? $event->replaces,
            ),
            $record->events,
        );
        $begun = $all->events[0]->at ?? $this->now->instant();
        $this->newBatches->takeIn($id, $by, $plan, $record->code ?? '', $record->rules, $begun, ...$events);
        $this->keepThermometers($record, $by);
    }

    /**
     * An event keeps its id where it is a UUID that nobody has yet; else it gets one that follows from it.
     *
     * @return array<string, string>
     */
    private function ids(Record $record, Uuid $batch): array
    {
        $uuids = array_values(array_filter(array_column($record->events, 'id'), Uuid::isValid(...)));
        /** @var list<string> $found */
        $found =
            $uuids === []
                ? []
                : $this->connection->fetchFirstColumn(
                    'SELECT id FROM event WHERE id IN (?)',
                    [$uuids],
                    [ArrayParameterType::STRING],
                );
        $taken = array_fill_keys($found, true);
        $ids = [];
        foreach ($record->events as $event) {
            $isFree = Uuid::isValid($event->id) && !isset($taken[strtolower($event->id)]);
            $ids[$event->id] = $isFree ? $event->id : Uuid::v5($batch, $event->id)->toRfc4122();
        }

        return $ids;
    }

    private function keepThermometers(Record $record, Account $by): void
    {
        $known = [];
        foreach ($record->thermometers === [] ? [] : $this->thermometers->of($by->site) as $thermometer) {
            $known[$thermometer->label] = $thermometer;
        }
        foreach ($record->thermometers as $one) {
            $thermometer = $known[$one->id] ?? new Thermometer($by->site, mb_substr($one->id, 0, 16));
            $this->entities->persist($thermometer);
            $this->entities->flush();
            $there = [];
            foreach ($this->checks->of($thermometer) as $check) {
                $there[$check->at->epoch.$check->method] = true;
            }
            foreach ($one->checks as $check) {
                $method = $check->method ?? 'ice';
                if (!isset($there[$check->at->epoch.$method])) {
                    $words =
                        $check->at->rfc3339()
                        .$check->method
                        .$check->expected->tenths
                        .$check->read->tenths
                        .$check->read->unit->value;
                    $id = Uuid::v5($thermometer->id, $words);
                    $this->checks->add($id, $thermometer, $by, $check->at, $method, $check->expected, $check->read);
                }
            }
        }
    }

    /** Its own tag where it has one that fits; of an open batch only if no other open one has it. */
    private function freeTag(Record $record, Account $by, bool $hasEnded): int
    {
        $tag = $record->tag !== null && $record->tag <= self::HIGHEST_TAG ? $record->tag : 1;
        if ($hasEnded) {
            return $tag;
        }

        return $this->batches->freeTags($by->site, $tag, 1)[0]
            ?? ($this->batches->freeTags($by->site, 1, 1)[0] ?? $tag);
    }
}
