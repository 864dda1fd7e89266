<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Tests\Core\Story;

/** The quick ways of looking a reading up agree with the plain ones; and the small sums everything stands on. */
final class TraceTest extends TestCase
{
    public function testLookingUpByPlaceAndMomentAgreesWithGoingThroughAll(): void
    {
        $chance = new Randomizer(new Mt19937(7));
        $limit = Threshold::ofPair(Temperature::fahrenheit('135'), Temperature::celsius('57'));
        // One in one unit only; and two that nothing, or all of it, reaches in one unit but not in the other.
        $low = Threshold::ofOne(Temperature::celsius('54'));
        $high = Threshold::ofPair(Temperature::fahrenheit('140'), Temperature::celsius('58'));
        for ($run = 0; $run < 60; ++$run) {
            $readings = self::readings($chance, $chance->getInt(0, 40));
            $trace = Trace::of($readings);
            for ($question = 0; $question < 20; ++$question) {
                $order = $chance->getInt(-3, 130);
                $to = $order + $chance->getInt(0, 60);
                $at = $chance->getInt(-100, 5000);
                self::assertSame(
                    self::last(array_filter($readings, static fn (TrackReading $one): bool => $one->order < $order)),
                    $trace->lastBefore($order),
                );
                self::assertSame(
                    self::last(array_filter($readings, static fn (TrackReading $one): bool => $one->at <= $at)),
                    $trace->lastUntil($at),
                );
                self::assertSame(
                    array_values(
                        array_filter(
                            $readings,
                            static fn (TrackReading $one): bool => $one->order >= $order && $one->order < $to,
                        ),
                    ),
                    $trace->between($order, $to)->all(),
                );
            }
            self::assertSame(
                array_values(
                    array_filter($readings, static fn (TrackReading $one): bool => $one->temp->isAtLeast($limit)),
                ),
                $trace->atLeast($limit)->all(),
            );
            self::assertSame(
                array_values(
                    array_filter($readings, static fn (TrackReading $one): bool => $one->temp->isAtMost($limit)),
                ),
                $trace->atMost($limit)->all(),
            );
            $first = static fn (\Closure $is): ?TrackReading => array_values(array_filter($readings, $is))[0] ?? null;
            foreach ([$limit, $low, $high] as $one) {
                self::assertSame(
                    $first(static fn (TrackReading $reading): bool => $reading->temp->isBelow($one)),
                    $trace->firstBelow($one),
                );
                self::assertSame(
                    $first(static fn (TrackReading $reading): bool => $reading->temp->isAbove($one)),
                    $trace->firstAbove($one),
                );
                self::assertSame(
                    $first(static fn (TrackReading $reading): bool => $reading->temp->isAtLeast($one)),
                    $trace->firstAtLeast($one),
                );
            }
            $levels = array_map(static fn (TrackReading $reading): int => $reading->temp->ninetieths, $readings);
            $steps = array_map(
                static fn (int $one, int $next): int => abs($next - $one),
                \array_slice($levels, 0, -1),
                \array_slice($levels, 1),
            );
            $labels = array_map(static fn (TrackReading $reading): string => $reading->thermometer ?? '', $readings);
            self::assertSame(
                [
                    min([\PHP_INT_MAX, ...$levels]),
                    max([\PHP_INT_MIN, ...$levels]),
                    max([0, ...$steps]),
                    \count(array_unique($labels)) < 2,
                ],
                [...array_values((array) $trace->extent()), $trace->isOfOneThermometer()],
            );
            self::assertSame(
                \count($readings),
                array_sum(array_map(static fn (Trace $one): int => $one->size(), $trace->byTrack())),
            );
            self::assertSame(
                [$readings[0] ?? null, self::last($readings), $readings === []],
                [$trace->first(), $trace->last(), $trace->isEmpty()],
            );
        }
    }

    public function testTheDangerZoneLiesBetweenItsBoundsAndGrowsWithTheMoment(): void
    {
        $chance = new Randomizer(new Mt19937(11));
        for ($run = 0; $run < 40; ++$run) {
            $lines = ['0 cook'];
            $at = 0;
            for ($reading = $chance->getInt(0, 8); $reading > 0; --$reading) {
                $at += $chance->getInt(1, 90);
                $lines[] = $at.' '.$chance->getInt(30, 180).($chance->getInt(0, 2) === 0 ? ' p2' : '');
            }
            $before = 0;
            foreach ([$at, $at + 30, $at + 300] as $asOf) {
                $zone = Story::of(...$lines)->about('beef cut 2pieces')->assess((string) $asOf)->dangerZone;
                self::assertLessThanOrEqual($zone->greatest->seconds, $zone->least->seconds, implode(', ', $lines));
                self::assertLessThanOrEqual($zone->greatest->seconds, $zone->estimate->seconds, implode(', ', $lines));
                self::assertGreaterThanOrEqual($before, $zone->greatest->seconds, 'what nobody read may be in it');
                self::assertLessThanOrEqual(
                    $zone->estimate->seconds,
                    array_sum($zone->byStage) - 1 * \count($zone->byStage),
                    'the stages share it, rounded',
                );
                $before = $zone->greatest->seconds;
            }
        }
    }

    public function testVerdictsAreOrderedFromBestToWorst(): void
    {
        $verdicts = Verdict::cases();
        foreach ($verdicts as $rank => $one) {
            foreach ($verdicts as $other => $two) {
                self::assertSame($rank > $other, $one->isWorseThan($two));
                self::assertSame($verdicts[max($rank, $other)], $one->worseOf($two));
            }
        }
        self::assertSame(
            ['met', 'stopped', 'running', 'not_shown', 'broken'],
            array_map(static fn (Verdict $one): string => $one->value, $verdicts),
        );
    }

    #[DataProvider('elapsed')]
    public function testALimitIsMetAtTheLimitAndBrokenOnlyWhereTheLeastIsOverIt(
        string $expected,
        int $least,
        int $greatest,
    ): void {
        self::assertSame(
            $expected,
            Verdict::ofElapsed(DurationBounds::ofSeconds($least, $greatest), Span::ofSeconds(7200))->value,
        );
    }

    /** @return iterable<array{string, int, int}> */
    public static function elapsed(): iterable
    {
        yield ['met', 0, 7200];
        yield ['not_shown', 0, 7201];
        yield ['not_shown', 7200, 7201];
        yield ['broken', 7201, 7201];
        yield ['met', 7200, 7200];
    }

    /** @param list<string> $expected */
    #[DataProvider('walls')]
    public function testTheWallsTimeHasNoneOneOrTwoMoments(string $zone, string $wall, array $expected): void
    {
        $seconds = (int) (new \DateTimeImmutable($wall, new \DateTimeZone('UTC')))->format('U');
        self::assertSame(
            $expected,
            array_map(
                static fn ($instant): string => $instant->rfc3339(),
                TimeZone::named($zone)->instantsAt($seconds),
            ),
        );
    }

    /** @return iterable<string, array{string, string, list<string>}> */
    public static function walls(): iterable
    {
        yield 'an ordinary moment' => ['America/Denver', '2026-07-04 12:00:00', ['2026-07-04T18:00:00Z']];
        yield 'repeated' => ['America/Denver', '2026-11-01 01:59:59', ['2026-11-01T07:59:59Z', '2026-11-01T08:59:59Z']];
        yield 'just after' => ['America/Denver', '2026-11-01 02:00:00', ['2026-11-01T09:00:00Z']];
        yield 'skipped' => ['America/Denver', '2026-03-08 02:30:00', []];
        yield 'just before' => ['America/Denver', '2026-03-08 01:59:59', ['2026-03-08T08:59:59Z']];
        yield 'a zone without changes' => ['Asia/Kolkata', '2026-03-08 02:30:00', ['2026-03-07T21:00:00Z']];
        yield 'a change of half an hour' => [
            'Australia/Lord_Howe',
            '2026-04-05 01:45:00',
            ['2026-04-04T14:45:00Z', '2026-04-04T15:15:00Z'],
        ];
    }

    /** @return list<TrackReading> */
    private static function readings(Randomizer $chance, int $count): array
    {
        $readings = [];
        $order = $at = 0;
        for ($index = 0; $index < $count; ++$index) {
            $order += $chance->getInt(1, 4);
            $at += $chance->getInt(0, 200);
            $unit = $chance->getInt(0, 1) === 0 ? TemperatureUnit::Fahrenheit : TemperatureUnit::Celsius;
            $temp = Temperature::ofTenths(
                $chance->getInt(...$unit === TemperatureUnit::Fahrenheit ? [1300, 1400] : [540, 600]),
                $unit,
            );
            $piece = $chance->getInt(1, 3);
            $label = [null, 'T1', 'T2'][$chance->getInt(0, 2)];
            $readings[] = new TrackReading('r'.$index, $at, $order, $temp, $piece, 'core', $piece.'/core', $label);
        }

        return $readings;
    }

    /**
     * @param array<TrackReading> $readings
     */
    private static function last(array $readings): ?TrackReading
    {
        return $readings === [] ? null : $readings[array_key_last($readings)];
    }
}
