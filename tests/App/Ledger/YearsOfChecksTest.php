<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\RecordedThermometer;
use Verjuicer\Core\Record\ThermometerCheck;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/**
 * A record holds of years of thermometer checks only those that say anything of its readings; what it leaves out must
 * change nothing.
 */
final class YearsOfChecksTest extends KitchenTestCase
{
    private const ADD =
        'INSERT INTO thermometer_check '
        .'(id, thermometer_id, at, recorded_at, account_id, method, expected, read, outcome) '
        .'SELECT gen_random_uuid(), t.id, %s, now(), (SELECT id FROM account LIMIT 1), '
        .'\'ice\', \'{"f": 32}\', %s, \'kept\' '
        .'FROM thermometer t WHERE t.label = %s';

    #[DataProvider('seeds')]
    public function testLeavingOutTheOthersChangesNothing(int $seed): void
    {
        mt_srand($seed);
        $this->asOwner();
        foreach (['T1', 'T2', 'T3'] as $label) {
            $this->connection()->executeStatement(
                'ALTER TABLE thermometer_check DISABLE TRIGGER thermometer_check_only_added',
            );
            $this->connection()->executeStatement(
                'DELETE FROM thermometer_check WHERE thermometer_id = (SELECT id FROM thermometer WHERE label = ?)',
                [$label],
            );
            for ($check = mt_rand(0, 12); $check > 0; --$check) {
                $this->check(
                    $label,
                    \sprintf("'".TestKitchen::MOMENT."'::timestamptz - interval '%d minutes'", mt_rand(-60, 4000)),
                    mt_rand(0, 2) === 0 ? 36.5 : 32.3,
                );
            }
            // At the very second of readings, where "before" and "after" are decided.
            if (mt_rand(0, 1) === 1) {
                $this->check(
                    $label,
                    "(SELECT at FROM event WHERE type = 'reading' AND members->>'thermometer' = '$label' "
."ORDER BY md5(id::text || '$seed') LIMIT 1)",
                    mt_rand(0, 1) === 0 ? 36.5 : 32.0,
                );
            }
        }
        $leftOut = 0;
        foreach ($this->batches() as $batch) {
            $record = $this->service(StoredRecords::class)->of($batch);
            $whole = $this->withEveryCheck($batch, $record);
            $leftOut += self::checksIn($whole) - self::checksIn($record);
            foreach ([1, 86400, 40 * 86400] as $later) {
                self::assertSame(
                    $this->judged($whole, Instant::parse(TestKitchen::MOMENT)->epoch + $later),
                    $this->judged($record, Instant::parse(TestKitchen::MOMENT)->epoch + $later),
                    $batch->code,
                );
            }
        }
        self::assertGreaterThan(0, $leftOut, 'something was left out, or this shows nothing');
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield [$seed];
        }
    }

    private function check(string $label, string $at, float $read): void
    {
        $connection = $this->connection();
        $connection->executeStatement(
            \sprintf(
                self::ADD,
                $at,
                $connection->quote(json_encode(['f' => $read], \JSON_THROW_ON_ERROR)),
                $connection->quote($label),
            ),
        );
    }

    /** @return list<Batch> */
    private function batches(): array
    {
        $tags = $this->connection()->fetchFirstColumn('SELECT tag FROM open_tag ORDER BY tag');

        return array_map(fn (mixed $tag): Batch => $this->batch(\is_int($tag) ? $tag : 0), $tags);
    }

    private function withEveryCheck(Batch $batch, Record $record): Record
    {
        $checks = [];
        foreach ($this->service(Thermometers::class)->of($batch->site) as $thermometer) {
            $checks[$thermometer->label] = array_map(
                static fn (AccuracyCheck $check): ThermometerCheck => new ThermometerCheck(
                    $check->at,
                    $check->method,
                    $check->expected,
                    $check->read,
                    [],
                ),
                $this->service(AccuracyChecks::class)->of($thermometer),
            );
        }
        $thermometers = array_map(
            static fn (RecordedThermometer $one): RecordedThermometer => new RecordedThermometer(
                $one->id,
                $checks[$one->id],
            ),
            $record->thermometers,
        );

        return new Record(
            $record->site,
            $record->rules,
            $record->asOf,
            $thermometers,
            $record->code,
            $record->product,
            $record->events,
        );
    }

    private static function checksIn(Record $record): int
    {
        return array_sum(
            array_map(static fn (RecordedThermometer $one): int => \count($one->checks), $record->thermometers),
        );
    }

    /** @return array<mixed> */
    private function judged(Record $record, int $at): array
    {
        $assessment = $this->service(Assessor::class)->assess(
            $record,
            $this->service(RuleSetLibrary::class)->get($record->rules),
            Instant::ofEpoch($at),
        );

        return [
            $assessment->verdict->value,
            array_map(static fn ($verdict): string => $verdict->value, $assessment->rulesJudged),
            $assessment->suspectReadings,
            self::findings($assessment),
        ];
    }

    /** @return list<string> */
    private static function findings(Assessment $assessment): array
    {
        return array_map(
            static fn (Finding $finding): string => $finding->rule
                .' '
                .$finding->message
                .' '
                .$finding->track
                .' '
                .implode(',', $finding->evidence),
            $assessment->findings,
        );
    }
}
