<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The command that forecasts, as others run it. */
final class ForecastCommandTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';

    public function testSaysWhenEachPieceAndTheBatchWillBeDone(): void
    {
        $answer = $this->forecast(self::record('
            {"type": "cook", "at": "2026-11-26T06:00:00Z", "set": {"f": 250}},
            {"type": "reading", "at": "2026-11-26T10:00:00Z", "temp": {"f": 140}, "piece": 1, "spot": "core"},
            {"type": "reading", "at": "2026-11-26T10:30:00Z", "temp": {"f": 147}, "piece": 1, "spot": "core"},
            {"type": "reading", "at": "2026-11-26T11:00:00Z", "temp": {"f": 153}, "piece": 1, "spot": "core"},
            {"type": "reading", "at": "2026-11-26T11:00:00Z", "temp": {"f": 204}, "piece": 2, "spot": "core"}
        '), '--as-of=2026-11-26T11:05:00Z', '--target=203F');
        self::assertSame(['f' => 203], (array) $answer->doneness->batch->target);
        /** @var array{\stdClass, \stdClass} $pieces */
        $pieces = $answer->doneness->pieces;
        [$first, $second] = $pieces;
        self::assertFalse($first->done);
        self::assertTrue($first->earliest < $first->likely && $first->likely < $first->latest);
        self::assertTrue($second->done);
        self::assertNull($second->earliest);
        self::assertSame($first->likely, $answer->doneness->batch->likely, 'the slowest decides');
        self::assertSame([], $answer->gates);
    }

    /**
     * What it is done at: as is asked for, else as the record says, else as it is planned to come off.
     *
     * @param list<string> $options
     * @param array{int, int}|null $targets °F of the pieces; null where nobody said
     */
    #[DataProvider('targets')]
    public function testIsDoneAtWhatSomebodySaid(array $options, string $noted, string $plan, ?array $targets): void
    {
        $note = $noted === ''
            ? ''
            : '{"type": "note", "step": "target", "at": "2026-11-26T06:01:00Z", "temp": {"f": '.$noted.'}},';
        $record = self::record('
            {"type": "cook", "at": "2026-11-26T06:00:00Z", "set": {"f": 250}},
            '.$note.'
            {"type": "reading", "at": "2026-11-26T11:00:00Z", "temp": {"f": 153}, "piece": 1, "spot": "core"},
            {"type": "reading", "at": "2026-11-26T11:00:00Z", "temp": {"f": 148}, "piece": 2, "spot": "core"}
        ');
        $record = substr($record, 0, (int) strrpos($record, '}')).', "plan": '.$plan.'}';
        $doneness = $this->forecast($record, '--as-of=2026-11-26T11:05:00Z', ...$options)->doneness;
        self::assertSame(
            $targets,
            $doneness === null
                ? null
                : array_map(static fn (\stdClass $one): int => $one->target->f, $doneness->pieces),
        );
    }

    /** @return iterable<string, array{list<string>, string, string, array{int, int}|null}> */
    public static function targets(): iterable
    {
        $off = '{"type": "off", "temp": {"f": 201}}';
        yield 'nobody' => [[], '', '[]', null];
        yield 'the plan' => [[], '', "[$off]", [201, 201]];
        $ofPiece = '{"type": "off", "at": {"f": 188}, "piece": 2}';
        yield 'the plan, of a piece' => [[], '', "[$off, $ofPiece]", [201, 188]];
        yield 'no temperature' => [
            [],
            '',
            '[{"type": "off", "at": "2026-11-26T18:00:00Z"}, {"type": "off", "temp": {"f": 99999}}, 7]',
            null,
        ];
        yield 'the record' => [[], '195', "[$off]", [195, 195]];
        yield 'who asks' => [['--target=203F'], '195', "[$off]", [203, 203]];
    }

    public function testSaysHowLikelyAGateIsLate(): void
    {
        $late = [];
        foreach ([[104, 84], [134, 120]] as [$before, $last]) {
            $answer = $this->forecast(str_replace('7.2', '1.2', self::record('
            {"type": "cook", "at": "2026-11-26T04:00:00Z", "set": {"f": 250}},
            {"type": "reading", "at": "2026-11-26T08:59:00Z", "temp": {"f": 150}, "piece": 1, "spot": "core"},
            {"type": "cool", "at": "2026-11-26T09:00:00Z", "method": "walk-in"},
            {"type": "reading", "at": "2026-11-26T09:30:00Z", "temp": {"f": '.$before.'}, "piece": 1, "spot": "core"},
            {"type": "reading", "at": "2026-11-26T10:00:00Z", "temp": {"f": '.$last.'}, "piece": 1, "spot": "core"}
            ')), '--as-of=2026-11-26T10:05:00Z');
            self::assertNull($answer->doneness);
            self::assertSame('cool.stage1', $answer->gates[0]->rule);
            self::assertSame(
                ['1/core middle', '1/core cold'],
                array_map(
                    static fn (\stdClass $one): string => implode(' ', [$one->track, $one->limit]),
                    $answer->falls,
                ),
            );
            self::assertSame($answer->gates[0]->likely, $answer->falls[0]->likely);
            $late[] = $answer->gates[0]->late;
        }
        self::assertLessThan(0.3, $late[0]);
        self::assertGreaterThan(0.8, $late[1], 'the warmer it is, the likelier it is late');
    }

    public function testATargetThatIsNoneIsRefused(): void
    {
        $process = new Process(
            [\PHP_BINARY, 'bin/console', 'verjuicer:forecast', '-', '--target=hot'],
            self::ROOT,
            ['APP_DEBUG' => '0'],
            '{}',
        );
        self::assertSame(2, $process->run());
        self::assertStringContainsString('such as 203F', $process->getOutput());
    }

    private function forecast(string $record, string ...$options): \stdClass
    {
        $process = new Process(
            [\PHP_BINARY, 'bin/console', 'verjuicer:forecast', '-', ...$options],
            self::ROOT,
            ['APP_DEBUG' => '0'],
            $record,
        );
        $process->mustRun();
        $answer = json_decode($process->getOutput(), false, flags: \JSON_THROW_ON_ERROR);
        self::assertInstanceOf(\stdClass::class, $answer);
        $schema = (string) file_get_contents(self::ROOT.'/docs/format/forecast.schema.json');
        self::assertTrue((new Validator())->validate($answer, $schema)->isValid(), $process->getOutput());
        $again = $process->getOutput();
        $process->mustRun();
        self::assertSame($again, $process->getOutput(), 'the same record and moment give the same answer');

        return $answer;
    }

    private static function record(string $events): string
    {
        $n = 0;
        $events = preg_replace_callback(
            '/\{"type"/',
            static function () use (&$n): string {
                return \sprintf('{"id": "e%d", "by": "MR", "type"', ++$n);
            },
            $events,
        );

        return <<<JSON
            {
                "format": "verjuicer-record/1",
                "site": {"name": "Quarry Lane", "timezone": "America/Denver", "unit": "F", "elevation_m": 1610},
                "rules": "us-food-code-2022",
                "thermometers": [],
                "batch": {
                    "code": "2026-1126-1",
                    "product": {
                        "name": "Pork butt", "animal": "pork", "form": "cut", "integrity": "intact",
                        "raw_weight_kg": 7.2, "pieces": 2
                    },
                    "events": [$events]
                }
            }
            JSON;
    }
}
