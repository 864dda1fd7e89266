<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Series;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Series\LimitBands;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Core\Series\Thinning;
use Verjuicer\Tests\Core\Story;

final class ThinningTest extends TestCase
{
    /** A record of every sample, and one of those that are kept, are judged alike and tell the same of the zone. */
    #[DataProvider('seeds')]
    public function testTheRecordShowsWhatEverySampleWouldHave(int $seed): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        [$lines, $minutes] = self::stages($random);
        $story = Story::of(...$lines)->about($random->getInt(0, 1) === 0 ? 'beef roast 3kg' : 'turkey roast 3kg');
        $record = $story->record();
        $unit = $random->getInt(0, 3) === 0 ? TemperatureUnit::Celsius : TemperatureUnit::Fahrenheit;
        $samples = self::samples($random, $minutes, $unit);
        $boundaries = array_map(static fn (Event $event): int => $event->at->epoch, $record->events);
        $kept = self::kept($samples, $boundaries);
        self::assertLessThan(\count($samples) / 2, \count($kept));
        foreach ([$minutes, intdiv($minutes, 2)] as $asOf) {
            // What is known so far, all of it in the record: nothing more came.
            $until = Story::at((string) $asOf)->epoch;
            $so = array_values(array_filter($samples, static fn (Sample $one): bool => $one->at <= $until));
            self::assertSame(
                self::shown($record, $so, (string) $asOf),
                self::shown($record, self::kept($so, $boundaries), (string) $asOf),
            );
        }
    }

    /** @return iterable<int, array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            yield $seed => [$seed];
        }
    }

    public function testItGoesOnFromWhatWasWrittenDown(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        $bands = LimitBands::of(Story::rules());
        $whole = Thinning::start();
        $resumed = Thinning::start();
        foreach (self::samples($random, 300, TemperatureUnit::Fahrenheit) as $sample) {
            [$whole, $one] = $whole->see($sample, $bands);
            $written = json_decode(json_encode($resumed->toArray(), \JSON_THROW_ON_ERROR), true);
            self::assertIsArray($written);
            [$resumed, $other] = Thinning::ofArray($written)->see($sample, $bands);
            self::assertEquals($one, $other);
        }
        self::assertEquals($whole, $resumed);
    }

    public function testWhatStandsStillIsKeptOnceAMinute(): void
    {
        $bands = LimitBands::of(Story::rules());
        $state = Thinning::start();
        $kept = [];
        for ($second = 0; $second <= 600; ++$second) {
            $tenths = 1512 + $second % 3;
            [$state, $more] = $state->see(
                new Sample($second, $second, Temperature::ofTenths($tenths, TemperatureUnit::Fahrenheit)),
                $bands,
            );
            $kept = [...$kept, ...$more];
        }
        $at = array_values(array_unique(array_map(static fn (Sample $one): int => $one->at, $kept)));
        self::assertLessThanOrEqual(13, \count($at), 'eleven minutes, and the highest and lowest once');
        self::assertSame([], array_diff([0, 60, 120, 600], $at));
    }

    public function testEveryLimitOfTheRuleSetCutsTheScale(): void
    {
        $bands = LimitBands::of(Story::rules());
        foreach (['41', '135', '130', '145', '155', '165', '70'] as $limit) {
            $at = Temperature::fahrenheit($limit);
            $below = Temperature::ofTenths($at->tenths - 1, $at->unit);
            $above = Temperature::ofTenths($at->tenths + 1, $at->unit);
            self::assertFalse($bands->areOne($below, $at), $limit);
            self::assertFalse($bands->areOne($at, $above), $limit);
            self::assertTrue($bands->areOne($at, $at), $limit);
        }
    }

    /**
     * @param list<Sample> $samples
     * @param list<int> $boundaries
     *
     * @return list<Sample>
     */
    private static function kept(array $samples, array $boundaries): array
    {
        $bands = LimitBands::of(Story::rules());
        $state = Thinning::start();
        $kept = [];
        foreach ($samples as $sample) {
            [$state, $more] = $state->see($sample, $bands);
            foreach ($more as $one) {
                $kept[$one->sequence] = $one;
            }
        }
        foreach ($state->rest() as $one) {
            $kept[$one->sequence] = $one;
        }
        foreach ($boundaries as $at) {
            foreach (Thinning::around($at, $samples) as $one) {
                $kept[$one->sequence] = $one;
            }
        }
        ksort($kept);

        return array_values($kept);
    }

    /**
     * @param list<Sample> $samples
     *
     * @return array<string, mixed>
     */
    private static function shown(Record $record, array $samples, string $asOf): array
    {
        $readings = [];
        foreach ($samples as $sample) {
            \assert($sample->temp !== null);
            $readings[] = new Event(
                'r'.$sample->sequence,
                Instant::ofEpoch($sample->at),
                'P1',
                new Reading($sample->temp, logger: true),
            );
        }
        $assessment = (new Assessor())->assess($record->with(...$readings), Story::rules(), Story::at($asOf));

        return self::figures($assessment);
    }

    /** @return array<string, mixed> */
    private static function figures(Assessment $assessment): array
    {
        $zone = $assessment->dangerZone;

        return [
            'verdict' => $assessment->verdict->value,
            'rules' => array_map(static fn (Verdict $one): string => $one->value, $assessment->rulesJudged),
            'estimate' => $zone->estimate->seconds,
            'least' => $zone->least->seconds,
            'greatest' => $zone->greatest->seconds,
            'unread' => $zone->beginsUnread,
            'by_stage' => $zone->byStage,
        ];
    }

    /** @return array{non-empty-list<string>, int} the stages of a random day in lines, and its end in minutes */
    private static function stages(\Random\Randomizer $random): array
    {
        $minute = 0;
        $lines = ['0 cold_hold'];
        $all = ['cook oven=convection set=250', 'rest', 'hot_hold', 'cool', 'cold_hold', 'reheat for=hot_hold'];
        foreach (\array_slice($all, 0, $random->getInt(2, 6)) as $stage) {
            if ($random->getInt(0, 5) > 0) {
                $minute += $random->getInt(10, 160);
                $lines[] = "$minute:{$random->getInt(0, 59)} $stage";
            }
        }

        return [$lines, $minute + $random->getInt(30, 300)];
    }

    /** @return list<Sample> a walk over the scale: slow, with noise, turns and silences */
    private static function samples(\Random\Randomizer $random, int $minutes, TemperatureUnit $unit): array
    {
        $from = Story::at('0')->epoch;
        $level = 38.0 + $random->getInt(-3, 6);
        $target = 40.0;
        $rate = 0.0;
        $samples = [];
        $step = $random->getInt(1, 10);
        for ($at = $from + $random->getInt(0, 600), $n = 0; $at <= $from + 60 * $minutes; $at += $step, ++$n) {
            if ($random->getInt(0, 200) === 0) {
                $target = (float) $random->getInt(34, 205);
                $rate = $random->getInt(5, 400) / 10_000;
            }
            if ($random->getInt(0, 600) === 0) {
                $at += $random->getInt(20, 9000);
            }
            $level += max(-$rate * $step, min($rate * $step, $target - $level));
            $read = $level + $random->getInt(-3, 3) / 10;
            $tenths = (int) round($unit === TemperatureUnit::Fahrenheit ? 10 * $read : ($read - 32) / 0.18);
            if ($at <= $from + 60 * $minutes) {
                $samples[] = new Sample($n, $at, Temperature::ofTenths($tenths, $unit));
            }
        }

        return $samples;
    }
}
