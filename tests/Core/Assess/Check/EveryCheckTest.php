<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Check\RuleCheck;
use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Tests\Core\Event\AnyEvent;
use Verjuicer\Tests\Core\Story;

/**
 * What every check keeps to, whatever the record: it returns, cites, stays with its rule, and names the moment time
 * alone may change it.
 */
final class EveryCheckTest extends TestCase
{
    private const PRODUCTS = [
        'beef cut',
        'lamb roast 3kg',
        'turkey roast 2pieces',
        'pork rte_commercial',
        'fish cut advisory papers',
        'none side',
    ];
    private const RECORDS = 150;

    public function testEveryCheckThereIsIsRunAndHasItsTest(): void
    {
        $run = array_map(static fn (RuleCheck $check): string => $check::class, self::checks());
        $there = array_map(
            static fn (string $file): string => 'Verjuicer\Core\Assess\Check\\'.basename($file, '.php'),
            (array) glob(__DIR__.'/../../../../core/Assess/Check/*Check.php'),
        );
        $there = array_values(array_filter($there, static fn (string $class): bool => !interface_exists($class)));
        self::assertEqualsCanonicalizing($there, $run);
        foreach ($there as $class) {
            self::assertTrue(
                class_exists(__NAMESPACE__.'\\'.basename(str_replace('\\', '/', $class)).'Test'),
                $class,
            );
        }
    }

    #[DataProvider('everyCheck')]
    public function testReturnsWhateverTheRecord(RuleCheck $check): void
    {
        $rules = [];
        foreach (self::records() as $seed => $record) {
            foreach ([0, 200, 1000, 20_000] as $minute) {
                $asOf = Story::at((string) $minute);
                $findings = self::run_($check, $record, $asOf);
                foreach ($findings->all() as $finding) {
                    $rules[$finding->rule] = true;
                    $this->assertKeepsTo($finding, $asOf, "seed $seed at $minute");
                }
                $judged = array_column($findings->all(), 'rule');
                foreach ($findings->countdowns() as $countdown) {
                    $isLimit = $countdown->kind === CountdownKind::Limit;
                    self::assertContains(
                        $countdown->rule,
                        [...$judged, ...$isLimit ? [] : [$countdown->rule]],
                        "seed $seed: a limit is a finding, too",
                    );
                    self::assertGreaterThanOrEqual($countdown->earliestStart->epoch, $countdown->deadline->epoch);
                    self::assertGreaterThanOrEqual($countdown->earliestStart->epoch, $countdown->latestStart->epoch);
                }
                $this->assertChangesOnlyAfterTheMomentItNames(
                    $check,
                    $record,
                    $asOf,
                    $findings,
                    "seed $seed at $minute",
                );
            }
        }
        self::assertNotSame([], $rules, 'it found something in all these records');
        self::assertCount(
            1,
            array_unique(array_map(static fn (string $rule): string => explode('.', $rule)[0], array_keys($rules))),
            'and kept to its rule',
        );
    }

    /** @return iterable<string, array{RuleCheck}> */
    public static function everyCheck(): iterable
    {
        foreach (self::checks() as $check) {
            yield basename(str_replace('\\', '/', $check::class)) => [$check];
        }
    }

    private function assertKeepsTo(Finding $finding, Instant $asOf, string $where): void
    {
        self::assertNotSame('', $finding->citation, $where);
        self::assertNotSame('', $finding->message, $where);
        if ($finding->deadline !== null) {
            self::assertGreaterThanOrEqual(
                $asOf->epoch,
                $finding->deadline->epoch,
                $where.': a deadline that has passed is none',
            );
            self::assertSame(Verdict::Running, $finding->verdict, $where);
        }
        if ($finding->elapsed !== null) {
            self::assertFalse($finding->elapsed->least->isLongerThan($finding->elapsed->greatest), $where);
        }
        if ($finding->verdict === Verdict::Broken) {
            self::assertNotSame([], $finding->options, $where.': a breach says what can be done');
        }
    }

    private function assertChangesOnlyAfterTheMomentItNames(
        RuleCheck $check,
        Record $record,
        Instant $asOf,
        Findings $findings,
        string $where,
    ): void {
        if ($record->events !== [] && $record->events[\count($record->events) - 1]->at->isAfter($asOf)) {
            return;
        }
        $until = $findings->nextTurn() ?? Instant::ofEpoch($asOf->epoch + 40 * 86400);
        $verdicts = static fn (Findings $of): array => array_map(
            static fn (Finding $one): array => [$one->rule, $one->track, $one->verdict],
            $of->all(),
        );
        $judged = array_filter($findings->all(), static fn (Finding $one): bool => $one->isJudged());
        if ($judged !== [] && $until->isAfter($asOf)) {
            self::assertEquals(
                $verdicts($findings),
                $verdicts(self::run_($check, $record, $until)),
                $where.': changed before '.$until->rfc3339(),
            );
        }
    }

    private static function run_(RuleCheck $check, Record $record, Instant $asOf): Findings
    {
        $timeline = Timeline::of($record, $asOf);
        $findings = new Findings($asOf);
        $check->judge(
            new CaseFile($record->site, $record->product, Story::rules(), $timeline, $timeline->readings),
            $findings,
        );

        return $findings;
    }

    /** @return list<RuleCheck> */
    private static function checks(): array
    {
        $checks = (new \ReflectionProperty(Assessor::class, 'checks'))->getValue(new Assessor());
        self::assertIsArray($checks);

        return array_values(array_filter($checks, static fn (mixed $check): bool => $check instanceof RuleCheck));
    }

    /** @return iterable<int, Record> events of any kind with any values, and readings between them */
    private static function records(): iterable
    {
        // What chance would take long to come by.
        yield 0 => Story::of(
            '0 cook',
            '9 cool',
            '20 reheat for=hot_hold',
            '30 cool',
            '40 reheat for=hot_hold',
            '50 180 T1',
            '51 80 T2',
            '60 cold_hold',
            '61 pack method=vacuum',
        )->record();
        yield -2 => Story::of('0 prep', '9 serve')->about('fish cut advisory')->record();
        yield -1 => Story::of('0 cook oven=still set=250', '10 40', '400 120', '500 rest')->record();
        for ($seed = 1; $seed <= self::RECORDS; ++$seed) {
            $chance = new Randomizer(new Mt19937($seed));
            $kinds = array_values(EventKinds::all());
            $lines = Story::of('0 prep')->about(self::PRODUCTS[$seed % \count(self::PRODUCTS)])->record();
            $events = [];
            $at = Story::at('0');
            for ($event = $chance->getInt(1, 30); $event > 0; --$event) {
                $at = Instant::ofEpoch($at->epoch + 60 * $chance->getInt(0, 90));
                $kind =
                    $chance->getInt(0, 1) === 0
                        ? $kinds[$chance->getInt(0, \count($kinds) - 1)]
                        : EventKinds::named('reading') ?? $kinds[0];
                $any = AnyEvent::of($kind, $chance);
                $replaces =
                    $events !== [] && $chance->getInt(0, 9) === 0
                        ? $events[$chance->getInt(0, \count($events) - 1)]->id
                        : null;
                $events[] = new \Verjuicer\Core\Record\Event(
                    'e'.\count($events),
                    $at,
                    'MR',
                    $any->detail,
                    $replaces,
                    $replaces === null ? null : 'a slip',
                );
            }
            yield $seed => new Record($lines->site, $lines->rules, null, [], 'test', $lines->product, $events);
        }
    }
}
