<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Kitchen;

use Verjuicer\App\EntryPoint\Demo\Story;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The kitchen of the tests as it would be in Celsius, kilograms and centimeters, with a clock of 24 hours. */
final readonly class MetricKitchen
{
    public static function story(): Story
    {
        $us = TestKitchen::story();

        return new Story(
            'Quarry Lane Export',
            $us->timezone,
            TemperatureUnit::Celsius,
            $us->elevationM,
            $us->ruleSet,
            $us->password,
            $us->people,
            $us->recipes,
            $us->holdUnits,
            array_map(
                static fn (array $one): array => [$one[0], $one[1], '-40 to 300 °C', $one[3]],
                $us->thermometers,
            ),
            array_map(
                static fn (array $checks): array => array_map(
                    static fn (array $check): array => [$check[0], $check[1], self::celsius($check[2])],
                    $checks,
                ),
                $us->checks,
            ),
            $us->pits,
            array_map(
                static fn (array $log): array => array_map(
                    static fn (array $row): array => [
                        $row[0], $row[1], $row[2], $row[3] === null ? null : (int) round(self::celsius($row[3])),
                    ],
                    $log,
                ),
                $us->pitLog,
            ),
            array_map(
                static function (array $lot): array {
                    $lot[8] = $lot[8] === null ? null : self::celsius($lot[8]);
                    $lot[13] = $lot[13] === null ? null : 'too warm, sent back with the driver';

                    return $lot;
                },
                $us->lots,
            ),
            array_map(
                static function (array $batch): array {
                    $batch[6] = self::entries($batch[6]);

                    return $batch;
                },
                $us->batches,
            ),
            array_map(
                static function (array $division): array {
                    foreach ($division[4] as $at => [$tag, $minutes, $login, $entry]) {
                        $division[4][$at] = [$tag, $minutes, $login, self::entry($entry)];
                    }

                    return $division;
                },
                $us->divisions,
            ),
            $us->papers,
            UnitSystem::Metric,
        );
    }

    /**
     * @param list<array{int, string, string}> $entries
     *
     * @return list<array{int, string, string}>
     */
    private static function entries(array $entries): array
    {
        return array_map(static fn (array $row): array => [$row[0], $row[1], self::entry($row[2])], $entries);
    }

    /** A temperature is the number that stands by itself: ".1" is a piece, "T1" a thermometer. */
    private static function entry(string $entry): string
    {
        return (string) preg_replace_callback(
            '/(?<![.\w])\d+(?:\.\d+)?(?![\w.])/',
            static fn (array $found): string => (string) self::celsius((float) $found[0]),
            $entry,
        );
    }

    private static function celsius(float $fahrenheit): float
    {
        return round(($fahrenheit - 32) / 1.8, 1);
    }
}
