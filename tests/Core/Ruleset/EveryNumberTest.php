<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\CitedSpan;
use Verjuicer\Core\Ruleset\CitedThreshold;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\TimeControlRules;
use Verjuicer\Core\Ruleset\Tolerance;
use Verjuicer\Core\Ruleset\Vocabulary;

/** Every number of a rule set reaches the place that has its name, and no other. */
final class EveryNumberTest extends TestCase
{
    /** Where a property is called otherwise than in the file. */
    private const ELSEWHERE = [
        'time_control' => [
            'startReadingBefore' => 'start_reading.seconds_before',
            'startReadingAfter' => 'start_reading.seconds_after',
        ],
        'vacuum_pack' => ['fishCitation' => 'fish.citation'],
        'house' => ['agreementWithin' => 'agreement_seconds', 'pitDriftFor' => 'pit_drift_seconds'],
        'cooking' => [
            'advisory' => 'advisory.citation',
            'susceptible' => 'susceptible.citation',
            'runGap' => 'record.run_gap_seconds',
            'settled' => 'record.settled_reading_seconds',
            'rawUntil' => 'record.raw_until_seconds',
            'lastLook' => 'record.last_look_seconds',
        ],
    ];

    public function testIsDifferentFromEveryOther(): void
    {
        $numbers = [];
        $data = ArtificialRules::data();
        array_walk_recursive($data, static function (mixed $value) use (&$numbers): void {
            if ((\is_int($value) || \is_float($value)) && $value !== 0) {
                $numbers[] = (string) $value;
            }
        });
        self::assertGreaterThan(100, \count($numbers));
        self::assertSame([], array_diff_assoc($numbers, array_unique($numbers)));
    }

    public function testReachesThePlaceThatHasItsName(): void
    {
        $rules = ArtificialRules::get();
        $data = ArtificialRules::data();
        $read = 0;
        foreach (Vocabulary::PARTS as $part) {
            $key = $part::key();
            self::assertIsArray($data[$key]);
            foreach ((new \ReflectionClass($part))->getProperties(\ReflectionProperty::IS_PUBLIC) as $property) {
                $name = $property->getName();
                $value = $property->getValue($rules->get($part));
                $path = self::ELSEWHERE[$key][$name] ?? self::snake($name);
                if (\in_array($name, ['plausible', 'lowRoastRows'], true)) {
                    continue; // tables of their own
                }
                $written = self::at($data[$key], $path) ?? self::at($data[$key], $path.'_seconds');
                self::assertNotNull($written, "$key/$path");
                self::assertSame(self::plain($written), self::number($value), "$key/$name");
                ++$read;
            }
        }
        self::assertGreaterThan(40, $read);
    }

    public function testTheRowsOfCookingAndTheirCitationsAreThoseOfTheirCategory(): void
    {
        $cooking = ArtificialRules::get()->get(CookingRules::class);
        $data = ArtificialRules::data()['cooking'];
        self::assertIsArray($data);
        foreach (CookingCategory::cases() as $category) {
            $rule = $cooking->of($category);
            $written = $data[$category->value];
            self::assertSame($written['citation'], $rule->citation);
            foreach ($rule->rows as $index => $row) {
                self::assertSame(
                    [
                        (float) $written['rows'][$index]['f'],
                        (float) $written['rows'][$index]['c'],
                        $written['rows'][$index]['seconds'],
                    ],
                    [...self::degrees($row->temperature), $row->dwell->seconds],
                );
            }
        }
        $low = $cooking->lowRoastRows;
        self::assertSame(
            [
                self::plain($data['roast_low_rows']['below']),
                $data['roast_low_rows']['heat_up_seconds'],
                $data['roast_low_rows']['citation'],
            ],
            [self::degrees($low->below), $low->heatUp->seconds, $low->citation],
        );
    }

    public function testEachPlanHasItsTime(): void
    {
        $time = ArtificialRules::get()->get(TimeControlRules::class);
        $plans = ArtificialRules::data()['time_control'];
        self::assertIsArray($plans);
        foreach (TimePlan::cases() as $plan) {
            self::assertSame(self::plain($plans['plans'][$plan->value]), self::number($time->limitOf($plan)));
        }
    }

    private static function snake(string $name): string
    {
        return strtolower((string) preg_replace('/(?<!^)[A-Z]/', '_$0', $name));
    }

    /** @param array<array-key, mixed> $data */
    private static function at(array $data, string $path): mixed
    {
        foreach (explode('.', $path) as $name) {
            if (!\is_array($data) || !\array_key_exists($name, $data)) {
                return null;
            }
            $data = $data[$name];
        }

        return $data;
    }

    /** @return list<mixed>|mixed numbers and citation, in one order */
    private static function plain(mixed $written): mixed
    {
        if (!\is_array($written)) {
            return $written;
        }
        $plain = [];
        foreach (['f', 'c', 'seconds', 'citation'] as $name) {
            if (isset($written[$name])) {
                $plain[] = \in_array($name, ['f', 'c'], true) ? (float) $written[$name] : $written[$name];
            }
        }

        return $plain;
    }

    /** @return list<mixed>|mixed */
    private static function number(mixed $value): mixed
    {
        return match (true) {
            $value instanceof CitedThreshold => [...self::degrees($value->threshold), $value->citation],
            $value instanceof CitedSpan => [$value->span->seconds, $value->citation],
            $value instanceof Span => $value->seconds,
            $value instanceof Tolerance => self::tolerance($value),
            default => $value,
        };
    }

    /** @return list<mixed> with its own citation, or none where it is its part's */
    private static function tolerance(Tolerance $tolerance): array
    {
        $degrees = [
            $tolerance->tenths(TemperatureUnit::Fahrenheit) / 10,
            $tolerance->tenths(TemperatureUnit::Celsius) / 10,
        ];

        return $tolerance->citation === ArtificialRules::get()->house()->citation
            ? $degrees
            : [...$degrees, $tolerance->citation];
    }

    /** @return list<float> */
    private static function degrees(Threshold $threshold): array
    {
        return array_map(static fn (Temperature $one): float => $one->tenths / 10, $threshold->printed());
    }
}
