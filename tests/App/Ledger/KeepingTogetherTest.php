<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use PHPUnit\Framework\Attributes\DataProvider;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\TagInUse;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Lot\TooLittleLeft;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Sauce;
use Verjuicer\Core\Event\Kinds\Serve;
use Verjuicer\Core\Event\Kinds\Spritz;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Core\Event\AnyEvent;

/** What the record keeps stays as it was given, whoever gives it, however often. */
final class KeepingTogetherTest extends KitchenTestCase
{
    /** Whatever an event says, its row says, and the record read from the rows; beyond the format, too. */
    #[DataProvider('chances')]
    public function testAnEventOfAnyKindComesBackAsItWasGiven(int $seed): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $chance = new Randomizer(new Mt19937($seed));
        $first = $this->event(new Note('first'));
        $log = $this->service(EventLog::class);
        $log->append($batch, $by, $first);
        $kept = [];
        foreach (EventKinds::all() as $kind) {
            $any = AnyEvent::of($kind, $chance);
            $replaces = $any->replaces === null ? null : $first->id;
            $id = Uuid::v7()->toRfc4122();
            $kept[$id] = new Event(
                $id,
                $this->now(),
                'MR',
                $any->detail,
                $replaces,
                $any->reason,
                null,
                $any->imported,
                $any->extensions,
            );
        }
        self::assertTrue($log->append($batch, $by, ...$kept));
        self::assertFalse($log->append($batch, $by, ...$kept), 'again, nothing is new');
        $read = [];
        foreach ($this->service(StoredRecords::class)->of($batch)->events as $event) {
            $read[$event->id] = $event;
        }
        foreach ($kept as $id => $event) {
            self::assertArrayHasKey($id, $read);
            self::assertSame($this->now()->rfc3339(), $read[$id]->recordedAt?->rfc3339(), 'recorded when it was');
            $written = (array) Writer::event($read[$id]);
            unset($written['recorded_at']);
            self::assertEquals((array) Writer::event($event), $written, $event->kind()->name());
        }
    }

    /** @return iterable<array{int}> */
    public static function chances(): iterable
    {
        foreach (range(1, 5) as $seed) {
            yield [$seed];
        }
    }

    /** However many events a batch gets at once: one lock, one assessment, one lane, and no more statements. */
    public function testManyEventsCostNoMoreStatementsThanOne(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $log = $this->service(EventLog::class);
        $reading = fn (int $one): Event => $this->event(
            new Reading(Temperature::fahrenheit((string) (150 + ($one % 20))), 1 + ($one % 4), 'core', 'T1'),
        );
        $log->append($batch, $by, $reading(0));
        $counts = [];
        foreach ([1, 2, 400] as $count) {
            $events = array_map($reading, range(1, $count));
            $counts[$count] = $this->statements(static fn () => $log->append($batch, $by, ...$events));
        }
        self::assertSame($counts[1], $counts[2]);
        self::assertLessThanOrEqual($counts[1] + 1, $counts[400], 'a long record is abridged by one more');
        self::assertLessThan(30, $counts[1]);
    }

    public function testMomentsAheadOfNowAreRefusedAndAClientsClockMayBeAMinuteFast(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $at = fn (int $seconds): Event => new Event(
            Uuid::v7()->toRfc4122(),
            $this->now()->plus(Span::ofSeconds($seconds)),
            'MR',
            new Spritz(),
        );
        $log = $this->service(EventLog::class);
        self::assertTrue($log->append($batch, $by, $at(60)));
        $this->expectException(EventConflict::class);
        $this->expectExceptionMessage('entry.problem.future');
        $log->append($batch, $by, $at(0), $at(61));
    }

    public function testOneIdForTwoEntriesIsRefusedAndNothingOfItKept(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $id = Uuid::v7()->toRfc4122();
        $log = $this->service(EventLog::class);
        $log->append($batch, $by, new Event($id, $this->now(), 'MR', new Spritz()));
        $before = $this->number('SELECT count(*) FROM event');
        foreach ([[new Sauce(), 7], [new Spritz(), 5], [new Spritz('Cider spritz'), 7]] as [$detail, $tag]) {
            try {
                $log->append(
                    $this->batch($tag),
                    $by,
                    $this->event(new Note('before it')),
                    new Event($id, $this->now(), 'MR', $detail),
                );
                self::fail('kept');
            } catch (EventConflict $conflict) {
                self::assertSame('entry.problem.id_taken', $conflict->key);
            }
        }
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    public function testACorrectionNamesAnEntryOfItsOwnBatch(): void
    {
        $by = $this->logIn();
        $foreign = $this->words(
            "SELECT e.id::text FROM event e JOIN batch b ON b.id = batch_id WHERE tag = 5 AND type = 'reading' LIMIT 1",
        );
        $void = new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', new Voided(), $foreign, 'slip');
        $this->expectException(EventConflict::class);
        $this->expectExceptionMessage('replaces_nothing');
        $this->service(EventLog::class)->append($this->batch(7), $by, $void);
    }

    public function testTagsAndCodesAreGivenOutInTurn(): void
    {
        $by = $this->logIn();
        $batches = $this->service(NewBatches::class);
        $product = $this->product('Pork butt');
        $codes = [];
        $begun = Instant::parse('2026-07-05T05:30:00Z');
        foreach ([81, 82, 81] as $tag) {
            $cook = new Event(Uuid::v7()->toRfc4122(), $begun, 'MR', new Cook());
            $end = new Event(
                Uuid::v7()->toRfc4122(),
                Instant::parse('2026-07-05T15:00:00Z'),
                'MR',
                new Discard(),
                null,
                'test',
            );
            $codes[] = $batches->begin(
                Uuid::v7(),
                $by,
                new BatchPlan($product, $tag, 1, null),
                null,
                $begun,
                $cook,
                $end,
            )->code;
        }
        self::assertSame(
            ['2026-0704-81', '2026-0704-82', '2026-0704-81.2'],
            $codes,
            'by the date on the wall it began on; a second one is told apart',
        );
        $batches->begin(
            Uuid::v7(),
            $by,
            new BatchPlan($product, 83, 1, null),
            null,
            $this->now(),
            $this->event(new Prep()),
        );
        $this->expectException(TagInUse::class);
        $batches->begin(
            Uuid::v7(),
            $by,
            new BatchPlan($product, 83, 1, null),
            null,
            $this->now(),
            $this->event(new Prep()),
        );
    }

    public function testATagIsFreeWhenItsBatchEndsAndHeldAgainWhenThatIsTakenBack(): void
    {
        $by = $this->logIn();
        $batch = $this->batch(7);
        $log = $this->service(EventLog::class);
        $batches = $this->service(Batches::class);
        $serve = $this->event(new Serve());
        $log->append($batch, $by, $serve);
        self::assertNull($batches->tagged($by->site, 7));
        $void = new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', new Voided(), $serve->id, 'too early');
        $log->append($batch, $by, $void);
        self::assertSame($batch, $batches->tagged($by->site, 7));
        $log->append($batch, $by, $again = $this->event(new Serve()));
        $this->service(NewBatches::class)->begin(
            Uuid::v7(),
            $by,
            new BatchPlan($this->product('Pork butt'), 7, 1, null),
            null,
            $this->now(),
            $this->event(new Prep()),
        );
        $this->expectException(TagInUse::class);
        $log->append(
            $batch,
            $by,
            new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', new Voided(), $again->id, 'too early'),
        );
    }

    public function testALotGivesNoMoreThanItHas(): void
    {
        $by = $this->logIn();
        $lots = $this->service(Lots::class);
        $id = $this->words("SELECT id::text FROM lot WHERE number = 'NF-902'");
        $onHand = $lots->find($by->site, $id);
        self::assertNotNull($onHand);
        self::assertSame(
            [9, 15452],
            [$onHand->piecesLeft, $onHand->gramsLeft],
            '12 of 20.6 kg, three of 1,716 g taken, rounded down',
        );
        $this->begin($onHand->lot, 91, 8);
        $after = $lots->find($by->site, $id);
        self::assertSame([1, 1724], [$after?->piecesLeft, $after?->gramsLeft]);
        $this->service(SiteLog::class)->add(Uuid::v7(), 'lot', $onHand->lot->id, $by, $this->now(), 'discard', [
            'pieces' => 1,
            'grams' => 1724,
        ]);
        self::assertNotContains(
            $id,
            array_map(static fn ($one): string => $one->lot->id->toRfc4122(), $lots->available($by->site)),
        );
        $before = $this->number('SELECT count(*) FROM batch');
        try {
            $this->begin($onHand->lot, 92, 1);
            self::fail('given');
        } catch (TooLittleLeft) {
            self::assertSame($before, $this->number('SELECT count(*) FROM batch'), 'no batch is left without its lot');
        }
    }

    public function testTwoWritersOfOneSiteWaitForEachOther(): void
    {
        $batch = $this->batch(7);
        $other = \Doctrine\DBAL\DriverManager::getConnection($this->connection()->getParams());
        // The rows of the kitchen are committed; a second writer that holds the site makes the first wait.
        $other->beginTransaction();
        $other->executeStatement('SELECT 1 FROM site WHERE id = ? FOR UPDATE', [$batch->site->id->toRfc4122()]);
        $this->connection()->executeStatement("SET LOCAL lock_timeout = '200ms'");
        try {
            $this->service(EventLog::class)->append($batch, $this->logIn(), $this->event(new Spritz()));
            self::fail('did not wait');
        } catch (\Doctrine\DBAL\Exception\LockWaitTimeoutException|\Doctrine\DBAL\Exception\DriverException $waited) {
            self::assertStringContainsString('lock timeout', $waited->getMessage());
        } finally {
            $other->rollBack();
        }
    }

    public function testTheLogOfASiteIsReadByTheTimeThingsHappened(): void
    {
        $by = $this->logIn();
        $log = $this->service(SiteLog::class);
        $subject = Uuid::v7();
        foreach ([[300, 'second'], [100, 'first'], [300, 'third']] as [$at, $type]) {
            $log->add(Uuid::v7(), 'pit', $subject, $by, Instant::ofEpoch($at), $type, ['temp' => ['f' => 250.5]]);
        }
        $events = $log->of($subject);
        self::assertSame(['first', 'second', 'third'], array_map(static fn ($event): string => $event->type, $events));
        self::assertSame('250.5', $events[0]->temperature('temp')?->number());
        self::assertNull($events[0]->text('temp'));
        self::assertSame(
            ['first', 'third'],
            array_map(static fn ($event): string => $event->type, $log->of($subject, 2)),
            'of many, those written down last',
        );
    }

    private function begin(Lot $lot, int $tag, int $pieces): void
    {
        $plan = new BatchPlan($lot->product, $tag, $pieces, $lot->gramsOfOne());
        $this->service(NewBatches::class)->begin(
            Uuid::v7(),
            $this->logIn(),
            $plan,
            $lot,
            $this->now(),
            $this->event(new Prep()),
        );
    }

    private function event(Detail $detail): Event
    {
        return new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', $detail);
    }

    private function product(string $name): Product
    {
        foreach ($this->service(Products::class)->of($this->logIn()->site) as $product) {
            if ($product->name === $name) {
                return $product;
            }
        }
        self::fail($name);
    }

    private function now(): Instant
    {
        return $this->service(Now::class)->instant();
    }
}
