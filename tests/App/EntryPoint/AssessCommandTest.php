<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Process\Process;
use Verjuicer\App\EntryPoint\Console\FormatCommand;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\Core\Event\AnyEvent;
use Verjuicer\Tests\Core\Story;

/** The command as others run it: a process, its output and its exit code. */
final class AssessCommandTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';
    private const SHARED = self::ROOT.'/../shared/conformance-3';
    private const COPY = self::ROOT.'/docs/format/examples';

    #[DataProvider('conformance')]
    public function testAgreesWithTheConformanceExamples(string $name): void
    {
        $expected = self::json((string) file_get_contents(self::folder()."/$name.expected.json"));
        self::assertIsString($expected->as_of);
        foreach ([['--as-of='.$expected->as_of], []] as $options) {
            [$status, $output] = self::run_([self::folder()."/$name.json", ...$options]);
            self::assertSame(0, $status);
            $answer = self::json($output);
            if ($options === [] && !isset($answer->verdict)) {
                self::fail($output);
            }
            if ($options === [] && $answer->as_of !== $expected->as_of) {
                continue; // an open batch without a moment is judged now
            }
            self::assertSame($expected->verdict, $answer->verdict);
            self::assertEqualsCanonicalizing((array) $expected->rules_judged, (array) $answer->rules_judged);
            self::assertEquals($expected->rules_judged, $answer->rules_judged);
            self::assertEqualsCanonicalizing($expected->suspect_readings, $answer->suspect_readings);
            foreach (get_object_vars($expected->danger_zone) as $figure => $value) {
                self::assertSame($value, $answer->danger_zone->{$figure}, $figure);
            }
            self::assertFits('assessment', $output);
        }
    }

    /** @return iterable<string, array{string}> */
    public static function conformance(): iterable
    {
        $files = glob(self::folder().'/*.expected.json');
        foreach ($files === false ? [] : $files as $file) {
            if (preg_match('/^[a-z]/', basename($file)) === 1) {
                continue; // of rule sets that are not here
            }
            yield basename($file, '.expected.json') => [basename($file, '.expected.json')];
        }
    }

    public function testTheExamplesShippedAreTheOnesAgreedOn(): void
    {
        self::assertCount(34, [...self::conformance()], 'every one of the rule set that is here');
        foreach (self::conformance() as [$name]) {
            self::assertFileEquals(self::folder()."/$name.json", self::COPY."/$name.json");
            self::assertFileEquals(self::folder()."/$name.expected.json", self::COPY."/$name.expected.json");
        }
    }

    public function testTheExamplesFitTheSchemaOfRecords(): void
    {
        foreach (self::conformance() as [$name]) {
            self::assertFits('record', (string) file_get_contents(self::folder()."/$name.json"));
        }
        self::assertFalse(
            (new Validator())
                ->validate(json_decode('{"format":"verjuicer-record/1"}'), self::schema('record'))
                ->isValid(),
        );
    }

    /** Generated from the catalogue by `verjuicer:format`. */
    public function testTheDocumentsOfTheFormatDescribeTheCatalogue(): void
    {
        $files = ['record.schema.json' => FormatCommand::schema(...), 'README.md' => FormatCommand::readme(...)];
        foreach ($files as $file => $written) {
            $kept = (string) file_get_contents(self::ROOT.'/docs/format/'.$file);
            self::assertSame($written($kept), $kept, $file.': run bin/console verjuicer:format');
        }
    }

    /** Whatever a record can say of an event, its schema allows. */
    public function testAnyEventFitsTheSchemaOfRecords(): void
    {
        $chance = new Randomizer(new Mt19937(1));
        $first = ['id' => 'first', 'at' => '2026-05-02T11:00:00Z', 'by' => 'MR', 'type' => 'note'];
        foreach (EventKinds::all() as $kind) {
            $record = json_decode(Story::of('0 cook')->json());
            self::assertInstanceOf(\stdClass::class, $record);
            $record->batch->events = [$first, Writer::event(AnyEvent::of($kind, $chance))];
            self::assertFits('record', (string) json_encode($record));
        }
    }

    public function testAnInvalidRecordIsNotAssessed(): void
    {
        [$status, $output] = self::run_(
            ['-'],
            str_replace('"f":140', '"f":1400', Story::of('0 cook', '10 140')->json()),
        );
        self::assertSame(2, $status);
        self::assertSame('/batch/events/1/temp', self::json($output)->errors[0]->pointer);
    }

    public function testOptionsAreCheckedAndUsed(): void
    {
        $story = Story::of('0 hot_hold', '10 140')->json();
        self::assertSame(
            '2026-05-02T12:20:00Z',
            self::json(self::run_(['-', '--as-of=2026-05-02T06:20:00-06:00', '--rules=us-food-code-2022'], $story)[1])
                ->as_of,
        );
        foreach (['--as-of=noon', '--rules=none'] as $option) {
            [$status, $output] = self::run_(['-', $option], $story);
            self::assertSame(2, $status);
            self::assertNotSame('', self::json($output)->errors[0]->message);
        }
        self::assertSame(2, self::run_(['/no/such/file'])[0]);
    }

    public function testTheRecordsOwnMomentStandsWhereNoneIsNamed(): void
    {
        $record = str_replace('"site"', '"as_of":"2026-05-02T12:30:00Z","site"', Story::of('0 hot_hold')->json());
        self::assertSame('2026-05-02T12:30:00Z', self::json(self::run_(['-'], $record)[1])->as_of);
    }

    public function testOneAnswerALineInTheSameOrder(): void
    {
        $lines = [
            Story::of('0 cook', '1 serve')->json(),
            '{"broken',
            '',
            Story::of('0 received temp=40', '1 close')->json(),
        ];
        [$status, $output] = self::run_(['-', '--ndjson'], implode("\n", $lines)."\n");
        self::assertSame(0, $status);
        $answers = explode("\n", rtrim($output, "\n"));
        self::assertCount(4, $answers);
        self::assertSame(
            ['not_shown', null, null, 'met'],
            array_map(static fn (string $answer): ?string => self::json($answer)->verdict ?? null, $answers),
        );
        self::assertObjectHasProperty('errors', self::json($answers[1]));
    }

    private static function assertFits(string $schema, string $json): void
    {
        $result = (new Validator())->validate(json_decode($json), self::schema($schema));
        self::assertTrue(
            $result->isValid(),
            $result->error() === null ? '' : (string) json_encode((new ErrorFormatter())->format($result->error())),
        );
    }

    private static function schema(string $name): string
    {
        return (string) file_get_contents(self::ROOT."/docs/format/$name.schema.json");
    }

    /**
     * @param list<string> $arguments
     *
     * @return array{int, string}
     */
    private static function run_(array $arguments, string $input = ''): array
    {
        $process = new Process(
            [\PHP_BINARY, 'bin/console', 'verjuicer:assess', ...$arguments],
            self::ROOT,
            ['APP_ENV' => 'test', 'APP_DEBUG' => '0'],
            $input,
        );
        $process->run();

        return [(int) $process->getExitCode(), $process->getOutput()];
    }

    private static function json(string $json): \stdClass
    {
        $data = json_decode($json);
        self::assertInstanceOf(\stdClass::class, $data, $json);

        return $data;
    }

    /** The examples as agreed on, where they are beside the project; a lone clone has its copy. */
    private static function folder(): string
    {
        return is_dir(self::SHARED) ? self::SHARED : self::COPY;
    }
}
