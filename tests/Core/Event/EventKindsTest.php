<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Event;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\Core\Story;

/** What the catalogue tells once of every kind holds wherever it is used. */
final class EventKindsTest extends TestCase
{
    /** The kinds of the open format, and what each does. */
    private const KINDS = [
        'action' => '',
        'close' => 'end',
        'cold_hold' => 'stage',
        'cook' => 'stage',
        'cool' => 'stage',
        'discard' => 'end',
        'freeze' => 'stage',
        'hot_hold' => 'stage',
        'inject' => 'pierces',
        'note' => '',
        'opened' => '',
        'pack' => '',
        'pit_reading' => '',
        'pit_set' => '',
        'prep' => 'stage',
        'probe_moved' => '',
        'probe_placed' => '',
        'probe_pulled' => '',
        'pull' => '',
        'reading' => '',
        'received' => 'stage',
        'reheat' => 'stage',
        'rest' => 'stage',
        'rotate' => '',
        'sauce' => '',
        'season' => '',
        'serve' => 'end',
        'slice' => '',
        'spritz' => '',
        'tenderize' => 'pierces',
        'thaw' => 'stage',
        'time_control' => 'stage',
        'trim' => '',
        'unwrap' => '',
        'vent' => '',
        'void' => '',
        'wrap' => '',
    ];

    public function testHoldsEveryKindOfTheFormatAndNoOther(): void
    {
        $kinds = array_map(
            static fn (Kind $kind): string => match (true) {
                is_a($kind->class, EndsBatch::class, true) => 'end',
                is_a($kind->class, BeginsStage::class, true) => 'stage',
                is_a($kind->class, CarriesSurfaceInside::class, true) => 'pierces',
                default => '',
            },
            EventKinds::all(),
        );
        self::assertSame(self::KINDS, $kinds);
    }

    #[DataProvider('chances')]
    public function testAnyValuesOfAnyKindAreWrittenReadAndCorrectedWithoutLoss(int $seed): void
    {
        $chance = new Randomizer(new Mt19937($seed));
        foreach (EventKinds::all() as $kind) {
            $event = AnyEvent::of($kind, $chance);
            self::assertEquals($event->detail, $event->corrected([]), 'correcting nothing changes nothing');
            $again = self::reread($event);
            self::assertEquals($event, $again, $kind->name().' as written: '.json_encode(Writer::event($event)));
            foreach ($kind->fields as $name => $field) {
                $value = AnyEvent::value($field, $chance);
                $corrected = $event->corrected([$name => $value]);
                self::assertEquals(
                    [$name => $value] + $kind->values($event->detail),
                    [$name => $kind->values($corrected)[$name]] + $kind->values($corrected),
                    $name.' alone',
                );
            }
        }
    }

    /** @return iterable<array{int}> */
    public static function chances(): iterable
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            yield [$seed];
        }
    }

    public function testAMemberOfOursInAnotherShapeIsKeptAndNoFault(): void
    {
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->fields as $name => $field) {
                if (!$field->isOurs()) {
                    continue;
                }
                $wrong = (object) ['strange' => [1, 2]];
                $data = Writer::event(AnyEvent::of($kind, new Randomizer(new Mt19937(7))));
                $data->{$name} = $wrong;
                $event = self::readData($data);
                self::assertEquals($wrong, $event->extensions[$name] ?? null, $kind->name().'/'.$name);
                self::assertEquals($wrong, Writer::event($event)->{$name}, 'and written again as it was');
                self::assertEquals($field->default, $kind->values($event->detail)[$name]);
            }
        }
    }

    public function testAWholeNumberOfOursOutOfItsRangeIsKeptAsAnExtension(): void
    {
        foreach ([0, -3, 1001, 1_000_000_000_000] as $depth) {
            $event = self::readData(
                (object) [
                    'id' => 'e',
                    'at' => '2026-05-02T12:00:00Z',
                    'by' => 'MR',
                    'type' => 'cool',
                    'depth_mm' => $depth,
                ],
            );
            self::assertInstanceOf(Kinds\Cool::class, $event->detail);
            self::assertNull($event->detail->depthMm);
            self::assertSame($depth, $event->extensions['depth_mm']);
        }
    }

    public function testWhatIsSaidOfAKindIsWholeAndItsOwn(): void
    {
        $sayings = [];
        foreach (EventKinds::all() as $kind) {
            $fields = array_keys($kind->fields);
            foreach ($kind->declared->sayings as $saying) {
                self::assertArrayNotHasKey($saying->key, $sayings, 'no two kinds are said alike');
                $sayings[$saying->key] = $kind->name();
                foreach ([$saying->words, $saying->number, ...array_keys($saying->sets)] as $field) {
                    self::assertContains($field, [null, 'reason', ...$fields], $kind->name());
                }
            }
            foreach ($kind->declared->taps as $tap) {
                self::assertSame([], array_diff(array_keys($tap->sets), $fields), $kind->name());
                foreach ($tap->in as $stage) {
                    self::assertTrue($stage === '' || EventKinds::named($stage)?->beginsStage() === true, $stage);
                }
            }
            foreach (array_keys($kind->declared->offered) as $stage) {
                self::assertTrue($stage === '' || EventKinds::named($stage)?->beginsStage() === true, $stage);
            }
        }
    }

    private static function reread(Event $event): Event
    {
        return self::readData(
            json_decode(json_encode(Writer::event($event), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)),
        );
    }

    private static function readData(mixed $event): Event
    {
        $first = (object) ['id' => 'first', 'at' => '2026-05-02T11:00:00Z', 'by' => 'MR', 'type' => 'note'];
        $record = Story::reader()->readData(
            (object) [
                'format' => Reader::FORMAT,
                'rules' => 'us-food-code-2022',
                'site' => (object) ['timezone' => 'America/Denver', 'unit' => 'F'],
                'batch' => (object) [
                    'product' => (object) ['animal' => 'lamb', 'form' => 'roast', 'integrity' => 'intact'],
                    'events' => [$first, $event],
                ],
            ],
        );

        return $record->events[1];
    }
}
