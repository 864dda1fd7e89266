<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Json;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Json\DocumentProblem;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Weight;

/**
 * Members of a JSON object, read as what they should be: a wrong one is named with its pointer and read as null, and
 * nothing stops.
 */
final class FieldsTest extends TestCase
{
    /** @param array<string, string> $problems by pointer */
    #[DataProvider('members')]
    public function testReadsOrNames(string $json, string $how, mixed $expected, array $problems = []): void
    {
        [$fields, $found] = self::fields($json);
        $read = match ($how) {
            'text' => $fields->text('x'),
            'required' => $fields->requiredText('x'),
            'flag' => $fields->flag('x'),
            'count' => $fields->count('x', 1),
            'whole' => $fields->whole('x'),
            'requiredWhole' => $fields->requiredWhole('x'),
            'number' => $fields->number('x'),
            'kilograms' => $fields->kilograms('x')?->micrograms,
            'instant' => $fields->instant('x')?->rfc3339(),
            'temperature' => $fields->temperature('x')?->number(),
            'choice' => $fields->choice('x', Oven::class)?->value,
            default => self::fail($how),
        };
        self::assertSame($expected, $read);
        $told = [];
        foreach ($found->all() as $problem) {
            $told[$problem->pointer] = $problem->message;
        }
        self::assertSame(array_keys($problems), array_keys($told));
        foreach ($problems as $pointer => $words) {
            self::assertStringContainsString($words, $told[$pointer]);
        }
    }

    /** @return iterable<array{0: string, 1: string, 2: mixed, 3?: array<string, string>}> */
    public static function members(): iterable
    {
        foreach (['text', 'whole', 'number', 'kilograms', 'instant', 'temperature', 'choice'] as $how) {
            yield "$how absent" => ['{}', $how, null];
            yield "$how null is as good as absent" => ['{"x":null}', $how, null];
            yield "$how of another kind" => [
                '{"x":[1]}',
                $how,
                null,
                ['/x' => $how === 'choice' ? 'is not known' : 'must be'],
            ];
        }
        yield ['{"x":"a"}', 'text', 'a'];
        yield ['{"x":""}', 'text', ''];
        yield ['{"x":""}', 'required', null, ['/x' => 'not empty']];
        yield ['{}', 'required', null, ['/x' => 'is missing']];
        yield ['{"x":true}', 'flag', true];
        yield ['{"x":"true"}', 'flag', false, ['/x' => 'true or false']];
        yield ['{"x":2}', 'count', 2];
        yield ['{}', 'count', 1];
        yield ['{"x":0}', 'count', 1, ['/x' => 'from 1']];
        yield ['{"x":2.0}', 'count', 1, ['/x' => 'from 1']];
        yield ['{"x":-3}', 'whole', -3];
        yield ['{"x":0}', 'requiredWhole', 0];
        yield ['{"x":-1}', 'requiredWhole', 0, ['/x' => 'from 0']];
        yield ['{"x":2.5}', 'number', 2.5];
        yield ['{"x":4.4999999}', 'kilograms', 4_499_999_900];
        yield ['{"x":0}', 'kilograms', null, ['/x' => 'above 0']];
        yield ['{"x":-1}', 'kilograms', null, ['/x' => 'above 0']];
        yield ['{"x":"2026-05-02T17:00:00Z"}', 'instant', '2026-05-02T17:00:00Z'];
        yield ['{"x":"2026-05-02T17:00:00-06:00"}', 'instant', '2026-05-02T23:00:00Z'];
        yield ['{"x":"2026-02-29T17:00:00Z"}', 'instant', null, ['/x' => 'RFC 3339']];
        yield ['{"x":{"f":203.5}}', 'temperature', '203.5'];
        yield ['{"x":{"c":-0.5}}', 'temperature', '-0.5'];
        yield ['{"x":{"f":203.55}}', 'temperature', null, ['/x' => 'one decimal']];
        yield ['{"x":{"f":"203"}}', 'temperature', null, ['/x/f' => 'without quotes']];
        yield ['{"x":{"f":1,"c":1}}', 'temperature', null, ['/x' => 'exactly one']];
        yield ['{"x":{"f":1000.1}}', 'temperature', null, ['/x' => 'out of range']];
        yield ['{"x":"still"}', 'choice', 'still'];
        yield ['{"x":"kiln"}', 'choice', null, ['/x' => 'still, convection, high_humidity']];
    }

    public function testWhatNobodyReadIsKept(): void
    {
        [$fields] = self::fields('{"x":"a","y":{"deep":[1,2.5,null]},"t":{"f":203,"note":"by eye"},"0":true}');
        $fields->text('x');
        $fields->temperature('t');
        self::assertEquals(
            ['t' => (object) ['note' => 'by eye'], 'y' => (object) ['deep' => [1, 2.5, null]], '0' => true],
            $fields->unknown(),
        );
    }

    public function testListsNameEachMember(): void
    {
        [$fields, $problems] = self::fields('{"list":[{"x":1},7,{"x":"a"}]}');
        foreach ($fields->objects('list', true) as $one) {
            $one->text('x');
        }
        self::assertSame(
            ['/list/0/x', '/list/1'],
            array_map(static fn (DocumentProblem $problem): string => $problem->pointer, $problems->all()),
        );
        [$fields, $problems] = self::fields('{}');
        self::assertSame([], iterator_to_array($fields->objects('list', true)));
        self::assertCount(1, $problems->all());
    }

    public function testWeightsAreComparedToTheMicrogram(): void
    {
        self::assertTrue(Weight::ofMicrograms(4_499_999_999)->isUnder(Weight::ofGrams(4500)));
        self::assertFalse(Weight::ofGrams(4500)->isUnder(Weight::ofGrams(4500)));
    }

    /** @return array{Fields, DocumentProblems} */
    private static function fields(string $json): array
    {
        $problems = new DocumentProblems();
        $object = json_decode($json, flags: \JSON_THROW_ON_ERROR);
        self::assertInstanceOf(\stdClass::class, $object);

        return [new Fields($object, null, '', $problems), $problems];
    }
}
