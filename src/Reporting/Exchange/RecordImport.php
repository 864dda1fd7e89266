<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\PortionOrigin;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;

/**
 * Imports records in the open format, one per line. The whole file is checked before anything is imported. Then it is
 * imported in short writes, one record in memory at a time, and can be stopped and resumed. A known batch is recognised
 * by the ids of its events, and left unchanged. Portions keep their origin.
 */
final readonly class RecordImport
{
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;
    private const IDS_AT_ONCE = 5000;
    /** Bytes of one record: it is read as a whole. */
    private const LONGEST = 64_000_000;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Reader $reader,
        private DuplicateDetection $recognition,
        private ImportedLots $lots,
        private ChunkedAppend $parts,
        private Ledger $ledger,
        private NewBatches $newBatches,
        private Batches $batches,
        private Thermometers $thermometers,
        private AccuracyChecks $checks,
        private Now $now,
    ) {
    }

    /** @param string|RecordLines $lines one record a line, or one record alone */
    public function import(
        string|RecordLines $lines,
        Account $by,
        bool $isPreview,
        ImportProgress $taking = new ImportProgress(),
    ): ImportReport {
        $lines = \is_string($lines) ? RecordLines::ofText($lines) : $lines;
        $report = new ImportReport();
        $arrivals = $this->look($lines, $by, $report, $taking);
        if (!$report->isGood() || $isPreview) {
            return $report;
        }
        if ($arrivals !== []) {
            $this->ledger->write($by->site, fn () => $this->lots->begin($arrivals, $by));
        }
        $taking->done = 0;
        /** @var array<string, string> $of ids by the code a batch has in this file: here it may have another */
        $of = [];
        foreach ($lines->all() as $line) {
            $record = $this->reader->read($line);
            $known = $this->recognition->of($by->site, $record);
            if ($known === null) {
                $parent = $of[$record->portion->of ?? ''] ?? null;
                $known = $this->keep($record, $by, $parent === null ? null : $this->batches->get($parent), $taking);
            } elseif ($known->id->toRfc4122() === $taking->batchId) {
                $this->goOn($known, $record, $by, $taking);
            } else {
                $taking->tell(\count($record->events));
            }
            $of[$record->code ?? ''] = $known->id->toRfc4122();
        }

        return $report;
    }

    /**
     * A preview of every line.
     *
     * @return array<string, ImportedLot> lots that are not here yet
     */
    private function look(RecordLines $lines, Account $by, ImportReport $report, ImportProgress $taking): array
    {
        $codes = $arrivals = [];
        foreach ($lines->all() as $number => $line) {
            if (\strlen($line) > self::LONGEST) {
                $report->refuse($number, 'the record is longer than 64 MB: split its readings.');

                continue;
            }
            try {
                $record = $this->reader->read($line);
            } catch (InvalidRecord $invalid) {
                foreach ($invalid->problems as $problem) {
                    $report->refuse($number, trim($problem->pointer.' '.$problem->message));
                }

                continue;
            }
            $refusal = $this->refusal($record, $codes);
            if ($refusal !== null) {
                $report->refuse($number, $refusal);

                continue;
            }
            $codes[$record->code] = true;
            $taking->total += \count($record->events);
            $known = $this->known($record, $by, $report, $taking);
            $known === null ? ++$report->new : ++$report->known;
            if ($known === null) {
                $arrivals = $this->lots->counted($arrivals, $record, $by);
            }
        }
        if ($codes === [] && $report->isGood()) {
            $report->refuse(1, 'there is no record in it.');
        }

        return $arrivals;
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

    private function known(Record $record, Account $by, ImportReport $report, ImportProgress $taking): ?Batch
    {
        $batch = $this->recognition->of($by->site, $record);
        $isUnfinished = $batch !== null && $batch->id->toRfc4122() === $taking->batchId;
        $different = $batch === null || $isUnfinished ? 0 : $this->recognition->differences($batch, $record);
        if ($batch !== null && $different > 0) {
            $report->different[] = ['code' => $batch->code, 'count' => $different];
        }

        return $batch;
    }

    /**
     * @param Batch|null $parent the batch it was split from, if it is in the file
     *
     * @throws ImportCancelled
     */
    private function keep(Record $record, Account $by, ?Batch $parent, ImportProgress $taking): Batch
    {
        // Slow work on many events is done before any lock is taken.
        $id = Uuid::v7();
        $parent ??= $record->portion === null ? null : $this->coded($by, $record->portion->of);
        [$ids, $shared] = $this->ids($record, $id, $parent);
        $own = array_values(array_filter($record->events, static fn (Event $one): bool => !isset($shared[$one->id])));
        $parts = ChunkedAppend::of(self::takenIn($own, $ids, $by));
        $first = array_shift($parts) ?? [];
        // Of that code, and nothing of it in this record: another kitchen's.
        $parent = $shared === [] ? null : $parent;
        $all = Timeline::of($record, Instant::ofEpoch(\PHP_INT_MAX));
        $begun = ($parent === null ? null : $own[0]->at ?? null) ?? $all->events[0]->at ?? $this->now->instant();
        $hasEnded = $all->end !== null;
        $batch = $this->ledger->write(
            $by->site,
            function () use ($record, $by, $id, $parent, $begun, $hasEnded, $shared, $first, $parts, $taking): Batch {
                $shares = $parent === null ? 0 : $this->sharesUpTo($parent, $begun, array_values($shared));
                $batch = $this->newBatches->takeIn(
                    $id,
                    $by,
                    $this->plan($record, $by, $parent, $shares, $hasEnded),
                    $this->freeCode($record->code ?? '', $by),
                    $record->rules,
                    $begun,
                    $parts === [],
                    ...$first,
                );
                $this->lots->link($batch, $record, $by);
                $this->keepThermometers($record, $by);
                $taking->keep($parts === [] ? null : $batch);
                if ($parts !== []) {
                    $this->ledger->goesOn();
                }

                return $batch;
            },
        );
        $taking->tell(\count($record->events) - array_sum(array_map(\count(...), $parts)));
        $this->parts->append($batch, $by, $parts, $taking);

        return $batch;
    }

    /** @param int $shares the place in the log up to which it shares events with the batch it was split from */
    private function plan(Record $record, Account $by, ?Batch $parent, int $shares, bool $hasEnded): BatchPlan
    {
        $product = $record->product;
        $like = new Product(
            $by->site,
            $product->name ?? '',
            $product->animal,
            $product->form,
            $product->integrity,
            null,
        );
        $like->treatments = array_map(static fn (Treatment $one): string => $one->value, $product->treatments);

        return new BatchPlan(
            $like,
            $this->freeTag($record, $by, $hasEnded),
            $product->pieces,
            $product->rawWeight?->grams(),
            $product->stuffed,
            $product->wild,
            $product->advisory,
            $parent === null || $record->portion === null ? null : new PortionOrigin(
                $parent,
                $shares,
                substr($record->code ?? '', -1),
                $record->portion->grams,
                $record->portion->container,
                $record->portion->depthMm,
                $product->pieceNumbers,
            ),
            $product->pieceNumbers,
        );
    }

    /**
     * The remaining events of a batch at which the import was stopped.
     *
     * @throws ImportCancelled
     */
    private function goOn(Batch $batch, Record $record, Account $by, ImportProgress $taking): void
    {
        [$ids, $shared] = $this->ids($record, $batch->id, $batch->parent);
        $own = array_values(array_filter($record->events, static fn (Event $one): bool => !isset($shared[$one->id])));
        // Known events are recognised by id, and saved once.
        $this->parts->append($batch, $by, ChunkedAppend::of(self::takenIn($own, $ids, $by)), $taking);
    }

    /**
     * @param list<Event> $events
     * @param array<string, string> $ids they get here, by those in the file
     *
     * @return list<Event>
     */
    private static function takenIn(array $events, array $ids, Account $by): array
    {
        return array_map(
            static fn (Event $event): Event => $event->takenIn(
                $by->initials,
                $ids[$event->id],
                $event->replaces === null ? null : $ids[$event->replaces] ?? $event->replaces,
            ),
            $events,
        );
    }

    private function coded(Account $by, string $code): ?Batch
    {
        return $this->entities->getRepository(Batch::class)->findOneBy(['site' => $by->site, 'code' => $code]);
    }

    /** The code, or with a number behind it where another batch of the site has it. */
    private function freeCode(string $code, Account $by): string
    {
        $free = $code;
        for ($number = 2; $this->coded($by, $free) !== null; ++$number) {
            $free = "$code/$number";
        }

        return $free;
    }

    /**
     * The place in the log of the last event that a portion shares with its origin at that moment.
     *
     * @param list<string> $shared ids
     */
    private function sharesUpTo(Batch $parent, Instant $begun, array $shared): int
    {
        $place = $shared === [] ? false : $this->connection->fetchOne(
            'SELECT max(seq) FROM event WHERE batch_id = ? AND at = ? AND id IN (?)',
            [$parent->id->toRfc4122(), $begun->rfc3339(), $shared],
            [2 => ArrayParameterType::STRING],
        );

        return \is_int($place) ? $place : 0;
    }

    /**
     * An event keeps its id if it is an unused UUID; else it gets one derived from it. Events of the batch it was split
     * from are shared with it.
     *
     * @return array{array<string, string>, array<string, string>} ids, and of these the shared ones, by those in the
     *     file
     */
    private function ids(Record $record, Uuid $batch, ?Batch $parent): array
    {
        $family = [];
        for ($one = $parent; $one !== null; $one = $one->parent) {
            $family[] = $one->id->toRfc4122();
        }
        $asked = $ids = $shared = [];
        foreach ($record->events as $event) {
            $asked[$event->id] = [
                ...(Uuid::isValid($event->id) ? [strtolower($event->id)] : []),
                ...array_map(static fn (string $of): string => DuplicateDetection::derived($of, $event->id), $family),
            ];
        }
        $found = [];
        foreach (array_chunk(array_unique(array_merge(...array_values($asked))), self::IDS_AT_ONCE) as $some) {
            $found += $this->connection->fetchAllKeyValue(
                'SELECT id, batch_id FROM event WHERE id IN (?)',
                [$some],
                [ArrayParameterType::STRING],
            );
        }
        foreach ($record->events as $event) {
            foreach ($asked[$event->id] as $one) {
                if (\in_array($found[$one] ?? null, $family, true)) {
                    $ids[$event->id] = $shared[$event->id] = $one;
                }
            }
            $isFree = Uuid::isValid($event->id)
                && ($found[strtolower($event->id)] ?? $batch->toRfc4122()) === $batch->toRfc4122();
            $ids[$event->id] ??= $isFree ? $event->id : DuplicateDetection::derived($batch->toRfc4122(), $event->id);
        }

        return [$ids, $shared];
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
