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
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\Portioned;
use Verjuicer\App\Ledger\Check\ThermometerChecks;
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
 * Takes in records in the open format, one a line: all of a file or nothing of it; a batch that is there already is
 * known by the ids of its events, and not touched. Portions keep what they were split off.
 */
final readonly class RecordImport
{
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;
    private const IDS_AT_ONCE = 5000;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Reader $reader,
        private Recognition $recognition,
        private TakenInLots $lots,
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
                $this->known($record, $by, $report) === null ? ++$report->new : ++$report->known;
            }

            return $report;
        }
        $this->ledger->write($by->site, function () use ($records, $by, $report, $told): void {
            $this->lots->begin(
                array_values(
                    array_filter(
                        $records,
                        fn (Record $one): bool => $this->recognition->of($by->site, $one) === null,
                    ),
                ),
                $by,
            );
            /** @var array<string, Batch> $of by the code it has in this file: here it may have another */
            $of = [];
            foreach ($records as $index => $record) {
                $known = $this->known($record, $by, $report);
                $known === null ? ++$report->new : ++$report->known;
                $parent = $of[$record->portion->of ?? ''] ?? null;
                $of[$record->code ?? ''] = $known ?? $this->keep($record, $by, $parent);
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

    private function known(Record $record, Account $by, ImportReport $report): ?Batch
    {
        $batch = $this->recognition->of($by->site, $record);
        $different = $batch === null ? 0 : $this->recognition->differences($batch, $record);
        if ($batch !== null && $different > 0) {
            $report->different[] = ['code' => $batch->code, 'count' => $different];
        }

        return $batch;
    }

    /** @param Batch|null $parent what it was split off, where that is in the file */
    private function keep(Record $record, Account $by, ?Batch $parent): Batch
    {
        $all = Timeline::of($record, Instant::ofEpoch(\PHP_INT_MAX));
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
        $id = Uuid::v7();
        $parent ??= $record->portion === null ? null : $this->coded($by, $record->portion->of);
        [$ids, $shared] = $this->ids($record, $id, $parent);
        // Of that code, and nothing of it in this record: another kitchen's.
        $parent = $shared === [] ? null : $parent;
        $own = array_values(array_filter($record->events, static fn (Event $one): bool => !isset($shared[$one->id])));
        $begun = ($parent === null ? null : $own[0]->at ?? null) ?? $all->events[0]->at ?? $this->now->instant();
        $plan = new BatchPlan(
            $like,
            $this->freeTag($record, $by, $all->end !== null),
            $product->pieces,
            $product->rawWeight?->grams(),
            $product->stuffed,
            $product->wild,
            $product->advisory,
            $parent === null || $record->portion === null ? null : new Portioned(
                $parent,
                $this->sharesUpTo($parent, $begun, array_values($shared)),
                substr($record->code ?? '', -1),
                $record->portion->grams,
                $record->portion->container,
                $record->portion->depthMm,
                $product->pieceNumbers,
            ),
            $product->pieceNumbers,
        );
        $events = array_map(
            static fn (Event $event): Event => $event->takenIn(
                $by->initials,
                $ids[$event->id],
                $event->replaces === null ? null : $ids[$event->replaces] ?? $event->replaces,
            ),
            $own,
        );
        $code = $this->freeCode($record->code ?? '', $by);
        $batch = $this->newBatches->takeIn($id, $by, $plan, $code, $record->rules, $begun, ...$events);
        $this->lots->link($batch, $record, $by);
        $this->keepThermometers($record, $by);

        return $batch;
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
     * The place in the log of the last event that a portion shares with what it was split off at that moment.
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
     * An event keeps its id where it is a UUID that nobody has yet; else it gets one that follows from it. Those that
     * the batch it was split off has are shared with it.
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
                ...array_map(static fn (string $of): string => Recognition::derived($of, $event->id), $family),
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
            $isFree = Uuid::isValid($event->id) && !isset($found[strtolower($event->id)]);
            $ids[$event->id] ??= $isFree ? $event->id : Recognition::derived($batch->toRfc4122(), $event->id);
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
