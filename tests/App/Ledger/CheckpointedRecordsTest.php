<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\JudgedRecord;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Tests\App\KitchenTestCase;

/** A long record is judged from where it stood, and shows what all of it shows, whatever is written down next. */
final class CheckpointedRecordsTest extends KitchenTestCase
{
    private const READINGS = 1200;

    private Batch $long;

    private Account $by;

    private Instant $from;

    protected function setUp(): void
    {
        parent::setUp();
        $this->long = $this->batch(7);
        $this->by = $this->logIn();
        $this->from = $this->service(Now::class)->instant()->plus(Span::ofSeconds(-10 * self::READINGS - 60));
        $events = [];
        for ($one = 0; $one < self::READINGS; ++$one) {
            $events[] = $this->event(
                10 * $one,
                $this->reading(130 + $one % 7 - ($one % 211 === 0 ? 9 : 0), 1 + $one % 2),
            );
        }
        $this->log()->append($this->long, $this->by, ...$events);
    }

    /** @return iterable<string, array{\Closure(self): void}> what is written down next */
    public static function next(): iterable
    {
        yield 'nothing' => [static fn () => null];
        yield 'a reading' => [static fn (self $on) => $on->append($on->event(12_010, $on->reading(131, 1)))];
        yield 'one at another spot' => [
            static fn (self $on) => $on->append(
                $on->event(12_010, new Kinds\Reading(Temperature::fahrenheit('120'), 2, 'point', 'T1')),
            )];
        yield 'a stage, and readings in it' => [
            static fn (self $on) => $on->append(
                $on->event(12_010, new Kinds\Rest()),
                $on->event(12_020, $on->reading(140, 1)),
                $on->event(12_030, $on->reading(133, 2)),
            )];
        yield 'a reading a little late' => [
            static fn (self $on) => $on->append($on->event(11_805, $on->reading(99, 1)))];
        yield 'a reading long past' => [
            static fn (self $on) => $on->append($on->event(1_805, $on->reading(99, 1)))];
        yield 'a step long past' => [static fn (self $on) => $on->append($on->event(1_805, new Kinds\Rest()))];
        yield 'a new reading put right' => [static fn (self $on) => $on->putRight('DESC', 0)];
        yield 'an old reading put right' => [static fn (self $on) => $on->putRight('ASC', 300)];
        yield 'a kept reading put right' => [static fn (self $on) => $on->putRight('ASC', 0)];
        yield 'a thermometer that fails' => [
            static fn (self $on) => $on->check('39')];
        yield 'two checks, then readings' => [
            static function (self $on): void {
                $on->append($on->event(12_005, $on->reading(131, 1)));
                $on->check('39', 2);
                $on->check('32', 1);
                $on->append($on->event(12_059, $on->reading(132, 2)));
            },
        ];
        yield 'rules that changed' => [
            static fn (self $on) => $on->write(
                'UPDATE abridged_record SET basis = ? WHERE batch_id = ?',
                'rows are from an early version',
            )];
    }

    /** @param \Closure(self): void $write */
    #[DataProvider('next')]
    public function testWhateverIsWrittenDownNextItShowsWhatTheWholeShows(\Closure $write): void
    {
        self::assertLessThan(
            self::READINGS / 2,
            \count($this->read($this->long)->record->events),
            'it was abridged',
        );
        $write($this);
        $batch = $this->again();
        $assessments = $this->service(Assessments::class);
        $json = $this->service(AssessmentJson::class);
        $whole = $json->of($assessments->whole($batch));
        foreach ([$assessments->of($batch), $assessments->ofKnown($batch, $this->read($batch))] as $assessment) {
            $judged = $json->of($assessment);
            self::assertSame($whole['as_of'], $judged['as_of']);
            self::assertEquals($whole, $judged);
        }
    }

    /** Whatever comes in whatever order: readings in time and late, steps, corrections, checks that pass and fail. */
    #[TestWith([1])]
    #[TestWith([4])]
    public function testByChance(int $seed): void
    {
        $chance = new Randomizer(new Mt19937($seed));
        $assessments = $this->service(Assessments::class);
        $json = $this->service(AssessmentJson::class);
        $at = 12_000;
        $stages = [new Kinds\Rest(), new Kinds\Cook(), new Kinds\Cool()];
        for ($step = 0; $step < 12; ++$step) {
            $crowd = [];
            for ($one = $chance->getInt(0, 60); $one > 0; --$one) {
                $at += $chance->getInt(0, 1) === 0 ? 1 : 0;
                $when = $chance->getInt(0, 40) === 0 ? $chance->getInt(0, $at) : $at;
                $crowd[] = $this->event($when, $this->reading($chance->getInt(115, 150), $chance->getInt(1, 2)));
            }
            self::mockTime(new \DateTimeImmutable('@'.($this->from->epoch + $at + 1)));
            $this->append(...$crowd);
            match ($chance->getInt(0, 9)) {
                0 => $this->append($this->event($at, $stages[$step % 3])),
                1 => $this->putRight('DESC', $chance->getInt(0, 20)),
                2 => $this->putRight('ASC', $chance->getInt(0, 800)),
                3 => $this->append($this->event($chance->getInt(0, $at), new Kinds\ProbeMoved(1, 'core', 'bone'))),
                4 => $seed % 2 === 0 ? $this->check($chance->getInt(0, 1) === 0 ? '32' : '39') : null,
                default => null,
            };
            $batch = $this->again();
            $whole = $json->of($assessments->whole($batch));
            self::assertEquals($whole, $json->of($assessments->of($batch)), "seed $seed, step $step");
            $read = $json->of($assessments->ofKnown($batch, $this->read($batch)));
            self::assertEquals($whole, $read, "seed $seed, step $step, read");
        }
    }

    public function testWhoeverForgesWhatLiesBesideIsFound(): void
    {
        $verification = $this->service(Verification::class);
        self::assertSame([], $verification->of($this->long->site)->breaks);
        $id = $this->long->id->toRfc4122();
        $data = json_decode($this->words("SELECT abridgement FROM abridged_record WHERE batch_id = '$id'"));
        self::assertInstanceOf(\stdClass::class, $data);
        // Its estimate of the danger zone: an hour less on every line.
        $data->tracks = (object) array_map(
            static fn (mixed $line): mixed => \is_array($line) && \is_int($line[0])
                ? [$line[0] - 3600 * 1_000_000_000, ...\array_slice($line, 1)]
                : $line,
            (array) $data->tracks,
        );
        $this->asOwner();
        $changed = $this->connection()->executeStatement(
            'UPDATE abridged_record SET abridgement = ? WHERE batch_id = ?',
            [json_encode($data, \JSON_THROW_ON_ERROR), $id],
        );
        self::assertSame(1, $changed);
        $this->logIn('ona');
        $this->service(CheckpointedRecords::class)->reset();
        $breaks = $verification->of($this->long->site)->breaks;
        self::assertCount(1, $breaks);
        self::assertStringContainsString($this->long->code, $breaks[0]);
    }

    /**
     * A short record that this process knows goes on with what comes, as if it were read again.
     *
     * @param \Closure(self, Batch): mixed $write
     */
    #[DataProvider('known')]
    public function testAKnownRecordGoesOnAsIfItWereReadAgain(\Closure $write): void
    {
        $batch = $this->batch(5);
        // By the thermometer of what comes: another would have it read again.
        $at = $this->service(Now::class)->instant()->plus(Span::ofSeconds(-20));
        $this->log()->append($batch, $this->by, new Event(Uuid::v7()->toRfc4122(), $at, 'MR', $this->reading(130, 1)));
        $records = $this->service(CheckpointedRecords::class);
        $records->of($batch);
        $write($this, $batch);
        $known = $records->of($batch)->record;
        self::assertEquals($this->service(StoredRecords::class)->of($batch), $known);
    }

    /** @return iterable<string, array{\Closure(self, Batch): mixed}> */
    public static function known(): iterable
    {
        $reading = static fn (self $on, int $ago): Event => new Event(
            Uuid::v7()->toRfc4122(),
            $on->service(Now::class)->instant()->plus(Span::ofSeconds(-$ago)),
            'MR',
            $on->reading(131, 1),
        );
        yield 'a reading' => [
            static fn (self $on, Batch $batch) => $on->log()->append($batch, $on->by, $reading($on, 5)),
        ];
        yield 'a reading before all others, where another check counts' => [
            static function (self $on, Batch $batch) use ($reading): void {
                $on->check('32', 500_000);
                $on->check('32', 450_000);
                $on->service(CheckpointedRecords::class)->of($batch);
                $on->log()->append($batch, $on->by, $reading($on, 480_000));
            },
        ];
        yield 'two checks, and a reading after both' => [
            static function (self $on, Batch $batch) use ($reading): void {
                $on->check('39', 9);
                $on->check('32', 8);
                $on->service(CheckpointedRecords::class)->of($batch);
                $on->log()->append($batch, $on->by, $reading($on, 5));
            },
        ];
        yield 'a reading, and what a pit says in the same write' => [
            static function (self $on, Batch $batch) use ($reading): void {
                $pit = $on->service(Pits::class)->named($batch->site, 'Drum');
                self::assertNotNull($pit);
                $ledger = $on->service(Ledger::class);
                $ledger->write($batch->site, static function () use ($on, $batch, $pit, $reading): void {
                    $on->service(PitHistory::class)->add(
                        Uuid::v7(),
                        $pit,
                        $on->by,
                        $on->service(Now::class)->instant()->plus(Span::ofSeconds(-30)),
                        PitSign::Reading->value,
                        Temperature::fahrenheit('171'),
                    );
                    $on->log()->append($batch, $on->by, $reading($on, 5));
                });
            },
        ];
        yield 'a reading by another thermometer' => [
            static fn (self $on, Batch $batch) => $on->log()->append($batch, $on->by, new Event(
                Uuid::v7()->toRfc4122(),
                $on->service(Now::class)->instant(),
                'MR',
                new Kinds\Reading(Temperature::fahrenheit('140'), 1, 'core', 'T3'),
            )),
        ];
        yield 'a step' => [
            static fn (self $on, Batch $batch) => $on->log()->append($batch, $on->by, new Event(
                Uuid::v7()->toRfc4122(),
                $on->service(Now::class)->instant(),
                'MR',
                new Kinds\Rest(),
            )),
        ];
    }

    /** Where whoever owes a forecast is killed, it is made all the same. */
    public function testAForecastThatIsOwedIsMadeSoonWhoeverIsGone(): void
    {
        $turn = fn (): int => $this->number(
            "SELECT extract(epoch FROM coalesce(next_turn, 'epoch'))::bigint FROM projection_state
             WHERE batch_id = '{$this->long->id}'",
        );
        $now = $this->service(Now::class)->instant()->epoch;
        $forecasts = $this->service(Forecasts::class);
        $forecasts->while(ForecastTiming::Never, fn () => $this->append($this->event(12_010, $this->reading(131, 1))));
        self::assertGreaterThan(0, $turn());
        self::assertLessThanOrEqual($now + 30, $turn());
        self::mockTime('+31 seconds');
        $this->service(Projections::class)->bringUpToDate($this->long->site);
        self::assertFalse($turn() > 0 && $turn() <= $now + 61, 'it waits for its own turn again');
    }

    /** However long it is: as many statements, and of each read as few rows. */
    public function testOneMoreReadingCostsWhatItCostsInAShortBatch(): void
    {
        $short = $this->batch(12);
        $this->log()->append($short, $this->by, $this->event(12_000, $this->reading(131, 1)));
        $in = fn (Batch $batch): int => $this->statements(
            fn () => $this->log()->append($batch, $this->by, $this->event(12_010, $this->reading(131, 1))),
        );
        self::assertLessThanOrEqual($in($short) + 4, $in($this->long), 'what lies beside it, its pit, own cooks');
        $known = $this->read($this->long);
        self::assertLessThan(self::READINGS / 2, \count($known->record->events));
        $readings = $this->service(Assessments::class)->of($this->long)->timeline->readings;
        self::assertGreaterThan(self::READINGS, $readings->count());
    }

    public function testAPageTellsOfAllReadings(): void
    {
        $this->client->request('GET', $this->path(7));
        self::assertResponseIsSuccessful();
        $page = $this->client->getCrawler()->filter('main')->text();
        self::assertSame(1, preg_match('/(\d+) more entries/', $page, $more));
        $all = $this->client->request('GET', $this->path(7).'/log')->filter('main')->text();
        self::assertSame(1, preg_match('/(\d+) more entries/', $all, $afterFirst));
        // That page shows 200, the other 40.
        self::assertSame((int) ($afterFirst[1] ?? 0) + 160, (int) ($more[1] ?? 0));
    }

    /** As it lies in the database, not as this process knows it. */
    private function read(Batch $batch): JudgedRecord
    {
        $judgedBy = self::getContainer()->getParameter('verjuicer.judged_by');
        self::assertIsString($judgedBy);

        return (new CheckpointedRecords(
            $this->connection(),
            $this->service(StoredRecords::class),
            $this->service(RuleSetLibrary::class),
            $judgedBy,
        ))->of($batch);
    }

    private function append(Event ...$events): void
    {
        $this->log()->append($this->long, $this->by, ...$events);
    }

    private function putRight(string $order, int $offset): void
    {
        $id = $this->words(
            "SELECT id FROM event WHERE batch_id = '{$this->long->id}' AND type = 'reading' AND at >= "
            ."'{$this->from->rfc3339()}' ORDER BY at $order OFFSET $offset LIMIT 1",
        );
        $this->append(
            new Event(
                Uuid::v7()->toRfc4122(),
                $this->from->plus(Span::ofSeconds(10 * $offset)),
                'MR',
                $this->reading(77, 1),
                $id,
                'misread',
            ),
        );
    }

    private function check(string $read, int $ago = 0): void
    {
        foreach ($this->service(Thermometers::class)->of($this->long->site) as $thermometer) {
            if ($thermometer->label === 'T1') {
                $this->service(AccuracyChecks::class)->add(
                    Uuid::v7(),
                    $thermometer,
                    $this->by,
                    $this->service(Now::class)->instant()->plus(Span::ofSeconds(-$ago)),
                    'ice',
                    Temperature::fahrenheit('32'),
                    Temperature::fahrenheit($read),
                );
            }
        }
    }

    private function write(string $sql, string $value): void
    {
        $this->asOwner();
        $id = $this->long->id->toRfc4122();
        $this->connection()->executeStatement($sql, [$value, $id]);
        $this->connection()->executeStatement('UPDATE projection_state SET head = head + 2 WHERE batch_id = ?', [$id]);
        $this->logIn();
    }

    private function again(): Batch
    {
        $entities = $this->service(EntityManagerInterface::class);
        $entities->clear();
        $batch = $entities->find(Batch::class, $this->long->id);
        self::assertNotNull($batch);

        return $batch;
    }

    private function reading(int $fahrenheit, int $piece): Kinds\Reading
    {
        return new Kinds\Reading(Temperature::fahrenheit((string) $fahrenheit), $piece, 'core', 'T1');
    }

    private function event(int $seconds, Detail $detail): Event
    {
        return new Event(Uuid::v7()->toRfc4122(), $this->from->plus(Span::ofSeconds($seconds)), 'MR', $detail);
    }

    private function log(): EventLog
    {
        return $this->service(EventLog::class);
    }
}
