<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Ruleset\RuleSetProblem;
use Verjuicer\Core\Ruleset\RuleSetReader;
use Verjuicer\Tests\Core\Story;

final class RuleSetTest extends TestCase
{
    private const FOLDER = __DIR__.'/../../../rulesets';

    public function testEveryRuleSetFitsItsSchemaAndReads(): void
    {
        $schema = file_get_contents(self::FOLDER.'/schema.json');
        self::assertIsString($schema);
        foreach (Story::library()->ids() as $id) {
            $json = file_get_contents(self::FOLDER."/$id.json");
            self::assertIsString($json);
            self::assertTrue((new Validator())->validate(json_decode($json), $schema)->isValid(), $id);
            self::assertSame($id, Story::library()->get($id)->id);
        }
    }

    public function testEveryNumberIsCited(): void
    {
        foreach (Story::library()->ids() as $id) {
            $data = json_decode((string) file_get_contents(self::FOLDER."/$id.json"), true);
            self::assertIsArray($data);
            self::assertSame([], self::uncited($data, '', false), $id);
        }
    }

    public function testAnUnknownOneNamesThoseThatAreKnown(): void
    {
        $this->expectException(RuleSetProblem::class);
        $this->expectExceptionMessage('name one of us-food-code-2022');
        Story::library()->get('us-food-code-1999');
    }

    #[DataProvider('faults')]
    public function testAFaultStopsTheLoadAndIsNamed(string $from, string $to, string $message): void
    {
        $file = tempnam(sys_get_temp_dir(), 'rules');
        self::assertIsString($file);
        $json = file_get_contents(self::FOLDER.'/us-food-code-2022.json');
        self::assertIsString($json);
        self::assertStringContainsString($from, $json);
        file_put_contents($file, str_replace($from, $to, $json));
        $this->expectException(RuleSetProblem::class);
        $this->expectExceptionMessage($message);
        try {
            RuleSetReader::read($file);
        } finally {
            unlink($file);
        }
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function faults(): iterable
    {
        yield 'no JSON' => ['{', '', 'cannot be read'];
        yield 'a limit without a figure' => [
            '"f": 41, "c": 5, "citation": "3-501.16(A)(2)"',
            '"citation": "3-501.16(A)(2)"',
            '/limits/cold/f',
        ];
        yield 'a limit without a citation' => [
            '"citation": "3-501.16(A)(2)"',
            '"citation": ""',
            '/limits/cold/citation',
        ];
        yield 'rows out of order' => [
            '{"f": 150, "c": 66, "seconds": 60}',
            '{"f": 144, "c": 62, "seconds": 60}',
            '/cooking/non_intact/rows/1/f',
        ];
        yield 'an unknown oven' => [
            '"oven": "still", "weight": "under"',
            '"oven": "tandoor", "weight": "under"',
            '/cooking/roast_low_rows/ovens/0/oven',
        ];
        yield 'another vocabulary' => ['verjuicer-ruleset/2', 'verjuicer-ruleset/9', '/vocabulary'];
        yield 'a part missing' => ['"date_mark"', '"date_marks"', '/date_mark'];
        yield 'a number in quotes' => [
            '"after_seconds": 86400',
            '"after_seconds": "86400"',
            '/date_mark/after_seconds',
        ];
    }

    /**
     * @param array<array-key, mixed> $data
     *
     * @return list<string> pointers of numbers with no citation beside or above them
     */
    private static function uncited(array $data, string $pointer, bool $isCited): array
    {
        $isCited = $isCited || isset($data['citation']);
        $uncited = [];
        foreach ($data as $name => $value) {
            if (\is_array($value)) {
                $uncited = [...$uncited, ...self::uncited($value, "$pointer/$name", $isCited)];
            } elseif (!$isCited && (\is_int($value) || \is_float($value))) {
                $uncited[] = "$pointer/$name";
            }
        }

        return $uncited;
    }
}
