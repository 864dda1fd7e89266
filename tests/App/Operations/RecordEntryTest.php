<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Operations\Entry\Completion;
use Verjuicer\App\Operations\Entry\DetailForm;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\EntryProblem;
use Verjuicer\App\Operations\Entry\ImplausibleEntry;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\SlipReason;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Core\Event\AnyEvent;

/** The one way in: completed, refused, doubted, kept. */
final class RecordEntryTest extends KitchenTestCase
{
    public function testWhatIsLeftOutIsFilledInFromWhatIsKnown(): void
    {
        $batch = $this->batch(7);
        $reading = $this->completed($batch, new Kinds\Reading(Temperature::fahrenheit('175')), true);
        self::assertEquals(
            new Kinds\Reading(Temperature::fahrenheit('175'), 1, 'core', 'T1'),
            $reading,
            'where and with what it was read last',
        );
        $cook = $this->completed($batch, new Kinds\Cook(pit: 'drum'));
        self::assertEquals(
            new Kinds\Cook(Oven::Convection, Temperature::fahrenheit('250'), 'Drum'),
            $cook,
            'oven and set point of the pit',
        );
        $own = $this->completed($batch, new Kinds\Cook(Oven::Still, Temperature::fahrenheit('300'), 'Drum'));
        self::assertEquals(
            new Kinds\Cook(Oven::Still, Temperature::fahrenheit('300'), 'Drum'),
            $own,
            'but not in place of what was said',
        );
        $sauce = $this->completed($batch, new Kinds\Sauce('Butter sauce'));
        self::assertInstanceOf(Kinds\Sauce::class, $sauce);
        self::assertSame(
            [['milk', 'fish'], 368],
            [$sauce->allergens, $sauce->weightKg?->grams()],
            'for 9.2 kg of meat',
        );
        $hold = $this->completed($batch, new Kinds\HotHold('Steam Table'));
        self::assertEquals(new Kinds\HotHold('Steam Table', Holding::SteamTable), $hold, 'the unit of the kitchen');
        self::assertEquals(
            new Kinds\HotHold('carrier 1', Holding::Carrier),
            $this->completed($batch, new Kinds\HotHold('carrier 1')),
        );
        self::assertEquals(
            new Kinds\HotHold('carrier 9'),
            $this->completed($batch, new Kinds\HotHold('carrier 9')),
            'nothing is guessed from part of a name',
        );
        self::assertEquals(
            new Kinds\Cool('sliced', Holding::BlastChiller),
            $this->completed($batch, new Kinds\Cool('sliced', Holding::BlastChiller)),
        );
    }

    #[DataProvider('refused')]
    public function testWhatCannotBeOfThisBatchIsRefused(Detail $detail, string $key): void
    {
        $this->expectException(EntryProblem::class);
        $this->expectExceptionMessage('entry.problem.'.$key);
        $this->completed($this->batch(7), $detail);
    }

    /** @return iterable<array{Detail, string}> */
    public static function refused(): iterable
    {
        $hot = Temperature::fahrenheit('170');
        yield [new Kinds\Reading($hot, 5), 'unknown_piece'];
        yield [new Kinds\Wrap('foil', 5), 'unknown_piece'];
        yield [new Kinds\Reading($hot, 1, 'elbow'), 'unknown_spot'];
        yield [new Kinds\Reading($hot, 1, 't9'), 'unknown_thermometer'];
        yield [new Kinds\ProbeMoved(1, 'elbow'), 'unknown_spot'];
        yield [new Kinds\Cook(pit: 'Barrel'), 'unknown_pit'];
        yield [new Kinds\PitSet($hot, 'Barrel'), 'unknown_pit'];
        yield [new Kinds\Season('No such rub'), 'unknown_recipe'];
        yield [new Kinds\Action('cook'), 'no_action'];
    }

    public function testADoubtIsRaisedOnceByTheReadingsKeptAndThoseEnteredWithIt(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $entry = $this->service(RecordEntry::class);
        $before = $this->number('SELECT count(*) FROM event');
        $one = $this->draft(new Kinds\Reading(Temperature::fahrenheit('173'), 1, 'core', 'T1'));
        $other = $this->draft(new Kinds\Reading(Temperature::fahrenheit('74'), 1, 'core', 'T1'));
        try {
            $entry->keep($batch, $by, false, $one, $other);
            self::fail('kept');
        } catch (ImplausibleEntry $doubtful) {
            self::assertSame([[SlipReason::Jump, SlipReason::OtherUnit], 1], [$doubtful->doubts, $doubtful->index]);
            self::assertStringContainsString('74 °F', $doubtful->sentence);
        }
        self::assertSame($before, $this->number('SELECT count(*) FROM event'), 'nothing of it is kept');
        self::assertCount(2, $entry->keep($batch, $by, true, $one, $other));
        self::assertCount(2, $entry->keep($batch, $by, true, $one, $other), 'a retry');
        self::assertSame($before + 2, $this->number('SELECT count(*) FROM event'));
        self::assertSame(
            [],
            $entry->doubts($batch, $this->draft(new Kinds\Reading(Temperature::fahrenheit('60'), 2, 'bone', 'T1'))),
            'another spot may differ',
        );
    }

    public function testManyEntriesAreCompletedDoubtedAndKeptInAsManyStatementsAsOne(): void
    {
        $batch = $this->batch(7);
        $by = $this->logIn();
        $entry = $this->service(RecordEntry::class);
        $draft = fn (int $one): Draft => $this->draft(
            new Kinds\Reading(Temperature::fahrenheit((string) (150 + ($one % 20))), 1 + ($one % 4)),
        );
        $counts = [];
        foreach ([1, 40, 400] as $count) {
            $drafts = array_map($draft, range(1, $count));
            $counts[] = $this->statements(static fn () => $entry->keep($batch, $by, false, ...$drafts));
        }
        self::assertLessThanOrEqual($counts[0], $counts[1]);
        self::assertLessThanOrEqual($counts[0] + 1, $counts[2], 'a long record is abridged by one more');
        self::assertLessThan(45, $counts[0]);
    }

    /**
     * Opening the form of any entry and changing nothing but its reason changes nothing that is written, printed or
     * followed by a recall.
     */
    #[DataProvider('seeds')]
    public function testCorrectingNothingChangesNothing(int $seed): void
    {
        $batch = $this->batch(5);
        $chance = new Randomizer(new Mt19937($seed));
        $form = $this->service(DetailForm::class);
        foreach (EventKinds::all() as $kind) {
            $any = AnyEvent::of($kind, $chance);
            $event = new Event(Uuid::v7()->toRfc4122(), $this->service(Now::class)->instant(), 'MR', $any->detail);
            $input = FormInput::filled($form->typed($event, $batch->site));
            $changes = $form->changes($event, $input, $batch->site);
            self::assertSame([], array_map(strval(...), array_keys($input->problems)), $kind->name());
            self::assertSame([], array_keys($changes), $kind->name());
            self::assertEquals($any->detail, $this->service(Completion::class)->corrected($batch, $event, $changes));
        }
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 20) as $seed) {
            yield [$seed];
        }
    }

    public function testACorrectionOfTheTimeAloneLeavesLabelAndRecallAsTheyWere(): void
    {
        $path = $this->path(5);
        $recipe = $this->words("SELECT id::text FROM recipe WHERE name = 'Orchard brine'");
        $seen = fn (): array => [
            $this->client
                ->request('GET', $path.'/label')
                ->filter('main svg')
                ->text(),
            $this->client
                ->request('GET', '/recall/recipe/'.$recipe)
                ->filter('tbody')
                ->text(),
            array_map(
                static fn (Event $event): array => [$event->kind()->name(), $event->detail],
                $this->counted($this->batch(5)),
            ),
        ];
        $before = $seen();
        $row = $this->client
            ->request('GET', $path)
            ->filterXPath("//table[@id='everything']//tr[contains(., 'Orchard brine')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['when' => '10:13', 'reason' => 'a minute earlier']),
        );
        self::assertResponseStatusCodeSame(303);
        self::assertEquals($before, $seen());
        self::assertSame(
            '10:13',
            $this->words(
                "SELECT to_char(at AT TIME ZONE 'America/Denver', 'HH24:MI') FROM event "
.'WHERE replaces IS NOT NULL ORDER BY seq DESC LIMIT 1',
            ),
        );
    }

    /** @return list<Event> those that stand, by time */
    private function counted(Batch $batch): array
    {
        $record = $this->service(StoredRecords::class)->of($batch);

        return \Verjuicer\Core\Assess\Evidence\Timeline::of($record, $this->service(Now::class)->instant())->events;
    }

    private function completed(Batch $batch, Detail $detail, bool $isSpotOpen = false): Detail
    {
        $now = $this->service(Now::class)->instant();

        return $this->service(RecordEntry::class)->completed(
            $batch,
            new Draft(Uuid::v7(), $detail, $now, isSpotOpen: $isSpotOpen),
        )[0]->detail;
    }

    private function draft(Detail $detail): Draft
    {
        return new Draft(Uuid::v7(), $detail, $this->service(Now::class)->instant());
    }
}
