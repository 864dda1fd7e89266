<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Record;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\Core\Story;

final class ReaderTest extends TestCase
{
    /**
     * @param array<string, mixed> $change members by pointer; null takes one away
     * @param array<string, mixed> $complaints pointer and a part of the message
     */
    #[DataProvider('faults')]
    public function testNamesEveryFault(array $change, array $complaints): void
    {
        $data = self::changed($change);
        try {
            Story::reader()->readData($data);
            self::fail('it was read');
        } catch (InvalidRecord $problem) {
            $found = [];
            foreach ($problem->problems as $one) {
                $found[$one->pointer] = $one->message;
            }
            self::assertSame(array_keys($complaints), array_keys($found));
            foreach ($complaints as $pointer => $part) {
                self::assertIsString($part);
                self::assertStringContainsString($part, $found[$pointer]);
            }
        }
    }

    /** @return iterable<string, array{array<string, mixed>, array<string, string>}> */
    public static function faults(): iterable
    {
        yield 'format' => [['/format' => 'other/1'], ['/format' => 'verjuicer-record/1']];
        yield 'rule set' => [['/rules' => 'us-1999'], ['/rules' => 'us-food-code-2022']];
        yield 'rule set missing' => [['/rules' => null], ['/rules' => 'is missing']];
        yield 'site' => [['/site' => null], ['/site' => 'is missing']];
        yield 'zone' => [['/site/timezone' => 'Denver'], ['/site/timezone' => 'IANA']];
        yield 'unit' => [['/site/unit' => 'K'], ['/site/unit' => 'one of F, C']];
        yield 'product' => [
            ['/batch/product/animal' => 'tofu', '/batch/product/form' => null],
            ['/batch/product/animal' => 'one of beef', '/batch/product/form' => 'is missing'],
        ];
        yield 'pieces' => [['/batch/product/pieces' => 0], ['/batch/product/pieces' => 'from 1']];
        yield 'flag' => [['/batch/product/stuffed' => 'no'], ['/batch/product/stuffed' => 'true or false']];
        yield 'weight' => [['/batch/product/raw_weight_kg' => -1], ['/batch/product/raw_weight_kg' => 'above 0']];
        yield 'events missing' => [['/batch/events' => null], ['/batch/events' => 'is missing']];
        yield 'events no list' => [['/batch/events' => new \stdClass()], ['/batch/events' => 'must be a list']];
        yield 'an event no object' => [['/batch/events/1' => 7], ['/batch/events/1' => 'must be an object']];
        yield 'type' => [['/batch/events/0/type' => 'grill'], ['/batch/events/0/type' => 'one of action, close']];
        yield 'no zone' => [['/batch/events/0/at' => '2026-05-02T12:00:00'], ['/batch/events/0/at' => 'with its zone']];
        yield 'who' => [['/batch/events/0/by' => null], ['/batch/events/0/by' => 'is missing']];
        yield 'temp missing' => [['/batch/events/1/temp' => null], ['/batch/events/1/temp' => 'is missing']];
        yield 'temp a number' => [['/batch/events/1/temp' => 140], ['/batch/events/1/temp' => 'must be a temperature']];
        yield 'two units' => [
            ['/batch/events/1/temp' => (object) ['f' => 140, 'c' => 60]],
            ['/batch/events/1/temp' => 'exactly one'],
        ];
        yield 'neither' => [['/batch/events/1/temp' => new \stdClass()], ['/batch/events/1/temp' => 'exactly one']];
        yield 'in quotes' => [
            ['/batch/events/1/temp' => (object) ['f' => '140']],
            ['/batch/events/1/temp/f' => 'without quotes'],
        ];
        yield 'too fine' => [
            ['/batch/events/1/temp' => (object) ['f' => 140.05]],
            ['/batch/events/1/temp' => 'more than one decimal'],
        ];
        yield 'out of range' => [
            ['/batch/events/1/temp' => (object) ['c' => 540.1]],
            ['/batch/events/1/temp' => 'out of range'],
        ];
        yield 'far out of range' => [
            ['/batch/events/1/temp' => (object) ['c' => 1e300]],
            ['/batch/events/1/temp' => 'out of range'],
        ];
        yield 'piece' => [['/batch/events/1/piece' => 1.5], ['/batch/events/1/piece' => 'whole number']];
        yield 'same id' => [['/batch/events/1/id' => 'e0'], ['/batch/events/1/id' => 'another event']];
        yield 'replaces nothing' => [['/batch/events/1/replaces' => 'e9'], ['/batch/events/1/replaces' => 'no event']];
        yield 'replaces itself' => [['/batch/events/1/replaces' => 'e1'], ['/batch/events/1/replaces' => 'itself']];
        yield 'void of nothing' => [['/batch/events/1/type' => 'void'], ['/batch/events/1/replaces' => 'is missing']];
        yield 'reheat for' => [['/batch/events/0/type' => 'reheat'], ['/batch/events/0/for' => 'is missing']];
        yield 'plan' => [
            ['/batch/events/0/type' => 'time_control', '/batch/events/0/plan' => 'hot_5h'],
            ['/batch/events/0/plan' => 'one of hot_4h'],
        ];
        yield 'pit_set' => [
            ['/batch/events/0/type' => 'pit_set', '/batch/events/0/set' => null],
            ['/batch/events/0/set' => 'is missing'],
        ];
        yield 'thermometer twice' => [['/thermometers/1/id' => 'T1'], ['/thermometers/1/id' => 'another thermometer']];
        yield 'check in two units' => [
            ['/thermometers/0/checks/0/read' => (object) ['c' => 0]],
            ['/thermometers/0/checks/0/read' => 'unit of "expected"'],
        ];
        yield 'check without a time' => [
            ['/thermometers/0/checks/0/at' => null],
            ['/thermometers/0/checks/0/at' => 'is missing'],
        ];
        $paper = static fn (array $more): array => ['/site/procedures' => [(object) ($more + [
            'kind' => 'cooling', 'number' => 'P-2', 'version' => 1, 'from' => '2026-05-01T00:00:00Z',
        ])]];
        yield 'a procedure of no kind' => [$paper(['kind' => 'grilling']), ['/site/procedures/0/kind' => 'one of']];
        yield 'a procedure without a number' => [$paper(['number' => 7]), ['/site/procedures/0/number' => 'text']];
        yield 'a procedure of version 0' => [$paper(['version' => 0]), ['/site/procedures/0/version' => 'from 1']];
        yield 'a procedure of no time' => [$paper(['from' => 'May']), ['/site/procedures/0/from' => 'RFC 3339']];
        yield 'a treatment nobody knows' => [
            ['/batch/product/treatments' => ['cured', 'boiled']],
            ['/batch/product/treatments' => 'write some of cured'],
        ];
        yield 'as_of' => [['/as_of' => 'noon'], ['/as_of' => 'RFC 3339']];
    }

    #[DataProvider('notJson')]
    public function testRefusesWhatIsNoJsonObject(string $json): void
    {
        $this->expectException(InvalidRecord::class);
        $this->expectExceptionMessage('not JSON');
        Story::reader()->read($json);
    }

    public function testWhatIsInWritingAndWhatIsDoneToItAreReadAndWrittenAsTheyWere(): void
    {
        $record = Story::of('0 prep')->about('pork roast cured paper:preserving:-60:60')->record();
        $procedure = $record->site->procedures[0] ?? self::fail();
        self::assertSame(ProcedureKind::Preserving, $procedure->kind);
        self::assertSame(['P-1', 2], [$procedure->number, $procedure->version]);
        foreach ([-61 => false, -60 => true, 59 => true, 60 => false] as $minute => $isInForce) {
            self::assertSame($isInForce, $procedure->isInForceAt(Story::at((string) $minute)), (string) $minute);
        }
        self::assertSame([Treatment::Cured], $record->product->treatments);
        self::assertEquals($record, Story::reader()->read(Writer::write($record)));
        $silent = Story::of('0 prep')->record();
        self::assertNull($silent->site->procedures, 'a record that does not say is no record that says none');
        self::assertEquals($silent, Story::reader()->read(Writer::write($silent)));
        $none = Story::of('0 prep')->about('beef cut papers')->record();
        self::assertSame([], $none->site->procedures);
        self::assertSame([], Story::reader()->read(Writer::write($none))->site->procedures);
    }

    /** @return iterable<array{string}> */
    public static function notJson(): iterable
    {
        yield [''];
        yield ['{'];
        yield ['[]'];
        yield ['null'];
        yield ["\"\xff\""];
    }

    public function testKeepsWhatItDoesNotKnowAndTakesNullForAbsent(): void
    {
        $data = self::changed([
            '/_note' => 'kept',
            '/site/phone' => null,
            '/site/grid' => new \stdClass(),
            '/batch/events/1/weather' => ['rain', 1.0],
            '/batch/events/1/temp' => (object) ['f' => 140.5, 'probe' => 'long'],
            '/batch/product/colour' => 'red',
            '/batch/shelf' => 3,
            '/batch/events/1/piece' => null,
            '/thermometers/0/checks/0/by' => 'MR',
            '/thermometers/0/kind' => 'instant',
        ]);
        $written = json_decode(Writer::write(Story::reader()->readData($data)));
        self::assertInstanceOf(\stdClass::class, $written);
        self::assertSame('kept', $written->_note);
        self::assertEquals(new \stdClass(), $written->site->grid);
        self::assertSame(['rain', 1.0], $written->batch->events[1]->weather);
        self::assertEquals((object) ['f' => 140.5, 'probe' => 'long'], $written->batch->events[1]->temp);
        self::assertSame(1, $written->batch->events[1]->piece);
        self::assertSame('red', $written->batch->product->colour);
        self::assertSame(3, $written->batch->shelf);
        self::assertSame('MR', $written->thermometers[0]->checks[0]->by);
        self::assertSame('instant', $written->thermometers[0]->kind);
    }

    /** @param array<string, mixed> $change */
    private static function changed(array $change): \stdClass
    {
        $data = json_decode(
            Story::of('0 cook set=250', '10 140 T1')->withThermometer('T1', '-9 32 32')->withThermometer('T2')->json(),
        );
        self::assertInstanceOf(\stdClass::class, $data);
        foreach ($change as $pointer => $value) {
            $at = &$data;
            foreach (explode('/', substr($pointer, 1)) as $step) {
                if (\is_array($at)) {
                    $at = &$at[(int) $step];
                } else {
                    $at = &$at->{$step};
                }
            }
            $at = $value;
            unset($at);
        }

        return $data;
    }
}
