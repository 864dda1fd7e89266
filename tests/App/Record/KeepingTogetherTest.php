<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Record;

use Doctrine\DBAL\Connection;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Lot\TooLittleLeft;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Ledger\Opening\TagInUse;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\App\Web\KitchenTestCase;

/** What the record keeps stays as it was given, whoever gives it, however often. */
final class KeepingTogetherTest extends KitchenTestCase
{
    /**
     * Whatever an event says, its row says, and the record read from the rows; beyond the format, too.
     *
     * @param array<string, mixed> $extras
     */
    #[DataProvider('events')]
    public function testAnEventComesBackAsItWasGiven(EventType $type, Detail\Detail $detail, array $extras = []): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $now = $this->now();
        $event = new Event(Uuid::v7()->toRfc4122(), $now, $by->initials, $type, $detail, null, 'because', $extras);
        self::assertTrue($this->service(EventLog::class)->append($batch, $by, $now, $event));
        self::assertFalse($this->service(EventLog::class)->append($batch, $by, $now, $event), 'again, it is not new');
        $kept = array_values(array_filter($this->service(StoredRecords::class)->of($batch)->events, static fn (Event $one): bool => $one->id === $event->id));
        self::assertCount(1, $kept);
        $read = (array) Writer::event($kept[0]);
        self::assertSame($now->rfc3339(), $read['recorded_at']);
        unset($read['recorded_at']);
        self::assertEquals((array) Writer::event($event), $read);
    }

    /** @return iterable<string, array{0: EventType, 1: Detail\Detail, 2?: array<string, mixed>}> */
    public static function events(): iterable
    {
        $hot = Temperature::fahrenheit('203.5');
        yield 'a reading in °F' => [EventType::Reading, new Detail\Reading($hot, 2, 'flat', 'T1'), ['feel' => 'tender']];
        yield 'a reading in °C' => [EventType::Reading, new Detail\Reading(Temperature::celsius('-0.5'), 1, 'core', null)];
        yield 'a whole degree' => [EventType::Reading, new Detail\Reading(Temperature::celsius('74'), 1, 'core', null)];
        yield 'a spot in another script' => [EventType::Reading, new Detail\Reading($hot, 1, 'плечо', 'T1')];
        yield 'a cook' => [EventType::Cook, new Detail\Cook(\Verjuicer\Core\Food\Oven::HighHumidity, $hot), ['pit' => 'Drum']];
        yield 'a cook of which little is known' => [EventType::Cook, new Detail\Cook(null, null)];
        yield 'received' => [EventType::Received, new Detail\Received(Temperature::fahrenheit('38'), true, 'A "quoted" farm', 'L-1')];
        yield 'held' => [EventType::HotHold, new Detail\Held('cabinet')];
        yield 'by the clock' => [EventType::TimeControl, new Detail\TimeControl(\Verjuicer\Core\Food\TimePlan::Cold6h)];
        yield 'reheated' => [EventType::Reheat, new Detail\Reheat(\Verjuicer\Core\Food\ReheatPurpose::Immediate)];
        yield 'seasoned' => [EventType::Season, Detail\Bare::of(), ['recipe' => 'Rub', 'weight_kg' => 0.202, 'allergens' => ['milk', 'soy']]];
        yield 'trimmed' => [EventType::Trim, Detail\Bare::of(), ['before_kg' => 6.4, 'after_kg' => 5.125]];
        yield 'a probe moved' => [EventType::ProbeMoved, new Detail\ProbeMoved(3, 'core'), ['to_spot' => 'flat']];
        yield 'an action' => [EventType::Action, new Detail\Action('house.raw_leftover', "thrown\naway")];
        yield 'what a stranger added' => [EventType::Note, new Detail\Note('x'), ['deep' => (object) ['er' => [1, 2.5, null]]]];
    }

    public function testOneIdForTwoEntriesIsRefusedAndNothingOfItKept(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $id = Uuid::v7()->toRfc4122();
        $log = $this->service(EventLog::class);
        $log->append($batch, $by, $this->now(), new Event($id, $this->now(), 'MR', EventType::Spritz, Detail\Bare::of()));
        $before = $this->number('SELECT count(*) FROM event');
        foreach ([[EventType::Sauce, 7], [EventType::Spritz, 5]] as [$type, $tag]) {
            try {
                $log->append($this->batch($tag), $by, $this->now(), new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', EventType::Note, new Detail\Note('before it')), new Event($id, $this->now(), 'MR', $type, Detail\Bare::of()));
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
        $foreign = $this->words("SELECT e.id::text FROM event e JOIN batch b ON b.id = batch_id WHERE tag = 5 AND type = 'reading' LIMIT 1");
        $this->expectException(EventConflict::class);
        $this->expectExceptionMessage('replaces_nothing');
        $this->service(EventLog::class)->append($this->batch(7), $by, $this->now(), new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', EventType::Void, Detail\Bare::of(), $foreign, 'slip'));
    }

    public function testTagsAndCodesAreGivenOutInTurn(): void
    {
        $by = $this->logIn();
        $batches = $this->service(NewBatches::class);
        $product = $this->product('Pork butt');
        $codes = [];
        foreach ([81, 82, 81] as $tag) {
            $cook = new Event(Uuid::v7()->toRfc4122(), Instant::parse('2026-07-05T05:30:00Z'), 'MR', EventType::Cook, new Detail\Cook(null, null));
            $end = new Event(Uuid::v7()->toRfc4122(), Instant::parse('2026-07-05T15:00:00Z'), 'MR', EventType::Discard, Detail\Bare::of(), null, 'test');
            $codes[] = $batches->begin(Uuid::v7(), $by, $this->now(), new BatchPlan($product, $tag, 1, null), $cook, $end)->code;
        }
        self::assertSame(['2026-0704-81', '2026-0704-82', '2026-0704-81.2'], $codes, 'by the date on the wall it began on; a second one is told apart');
        $prep = fn (): Event => new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', EventType::Prep, Detail\Bare::of());
        $batches->begin(Uuid::v7(), $by, $this->now(), new BatchPlan($product, 83, 1, null), $prep());
        $this->expectException(TagInUse::class);
        $batches->begin(Uuid::v7(), $by, $this->now(), new BatchPlan($product, 83, 1, null), $prep());
    }

    public function testALotGivesNoMoreThanItHas(): void
    {
        $by = $this->logIn();
        $lots = $this->service(Lots::class);
        $id = $this->words("SELECT id::text FROM lot WHERE number = 'NF-902'");
        $onHand = $lots->find($by->site, $id);
        self::assertNotNull($onHand);
        self::assertSame([9, 15452], [$onHand->piecesLeft, $onHand->gramsLeft], '12 of 20.6 kg, three of 1,716 g taken, rounded down');
        $this->begin($onHand->lot, 91, 8);
        $after = $lots->find($by->site, $id);
        self::assertSame([1, 1724], [$after?->piecesLeft, $after?->gramsLeft]);
        $this->service(SiteLog::class)->add(Uuid::v7(), 'lot', $onHand->lot->id, $by, $this->now(), $this->now(), 'discard', ['pieces' => 1, 'grams' => 1724]);
        self::assertNotContains($id, array_map(static fn ($one): string => $one->lot->id->toRfc4122(), $lots->available($by->site)));
        $before = $this->number('SELECT count(*) FROM batch');
        try {
            $this->begin($onHand->lot, 92, 1);
            self::fail('given');
        } catch (TooLittleLeft) {
            self::assertSame($before, $this->number('SELECT count(*) FROM batch'), 'no batch is left without its lot');
        }
    }

    public function testTwoWritersOfOneBatchWaitForEachOther(): void
    {
        $batch = $this->batch(7);
        $other = \Doctrine\DBAL\DriverManager::getConnection($this->connection()->getParams());
        // The rows of the demo are committed; a second writer that holds the batch makes the first wait.
        $other->beginTransaction();
        $other->executeStatement('SELECT 1 FROM batch WHERE id = ? FOR UPDATE', [$batch->id->toRfc4122()]);
        $this->connection()->executeStatement("SET LOCAL lock_timeout = '200ms'");
        try {
            $this->service(EventLog::class)->append($batch, $this->logIn(), $this->now(), new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', EventType::Spritz, Detail\Bare::of()));
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
        $now = $this->now();
        foreach ([[300, 'second'], [100, 'first'], [300, 'third']] as [$at, $type]) {
            $log->add(Uuid::v7(), 'pit', $subject, $by, Instant::ofEpoch($at), $now, $type, ['temp' => ['f' => 250.5]]);
        }
        $events = $log->of($subject);
        self::assertSame(['first', 'second', 'third'], array_map(static fn ($event): string => $event->type, $events));
        self::assertSame('250.5', $events[0]->temperature('temp')?->number());
        self::assertNull($events[0]->text('temp'));
        self::assertSame(['first', 'third'], array_map(static fn ($event): string => $event->type, $log->of($subject, 2)), 'of many, those written down last');
    }

    private function begin(Lot $lot, int $tag, int $pieces): void
    {
        $this->service(NewBatches::class)->begin(Uuid::v7(), $this->logIn(), $this->now(), new BatchPlan($lot->product, $tag, $pieces, $lot->gramsOfOne(), lot: $lot), new Event(Uuid::v7()->toRfc4122(), $this->now(), 'MR', EventType::Prep, Detail\Bare::of()));
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
        $now = $this->service(Connection::class)->fetchOne('SELECT extract(epoch FROM max(recorded_at))::int FROM event');
        self::assertIsInt($now);

        return Instant::ofEpoch($now);
    }
}
