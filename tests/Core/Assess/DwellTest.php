<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Evidence\Dwell;
use Verjuicer\Core\Assess\Evidence\OmittedReadings;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Tests\Core\Story;

/** The quick way through readings finds the row, its run and its end that the rule, read word by word, finds. */
final class DwellTest extends TestCase
{
    public function testIsTheRuleReadWordByWord(): void
    {
        $chance = new Randomizer(new Mt19937(29));
        $rules = Story::rules()->get(CookingRules::class);
        $reached = 0;
        foreach ([CookingCategory::Roast, CookingCategory::NonIntact, CookingCategory::Poultry] as $category) {
            $rows = $rules->of($category)->rows;
            for ($run = 0; $run < 300; ++$run) {
                $readings = self::readings($chance, $chance->getInt(0, 30));
                $cut = $chance->getInt(0, \count($readings));
                $dwell = new Dwell($rows, $rules);
                // In two goes, as a record that goes on is read.
                $found = $dwell->through(Trace::of(\array_slice($readings, 0, $cut)))
                    ?? $dwell->through(Trace::of(\array_slice($readings, $cut)));
                self::assertSame(self::plain($readings, $rows, $rules), $found, "$category->value $run");
                $reached += $found === null ? 0 : 1;
                $seen = $found === null
                    ? $readings
                    : \array_slice($readings, 0, 1 + (int) array_search($found[2], $readings, true));
                self::assertSame(self::isHotEnough($seen, $rows), $dwell->wasHotEnough);
                $levels = array_map(static fn (TrackReading $one): int => $one->level, $seen);
                self::assertSame($levels === [] ? null : max($levels), $dwell->highest?->level);
            }
        }
        self::assertGreaterThan(100, $reached);
        self::assertLessThan(800, $reached);
    }

    /**
     * Each row at each reading: back over those before it as long as they are at the row, close enough, and none that
     * was left out says otherwise.
     *
     * @param list<TrackReading> $readings
     * @param list<CookingRow> $rows
     *
     * @return array{CookingRow, TrackReading, TrackReading}|null
     */
    private static function plain(array $readings, array $rows, CookingRules $rules): ?array
    {
        foreach ($readings as $index => $last) {
            foreach ($rows as $row) {
                $first = null;
                for ($back = $index; $back >= 0 && $readings[$back]->temp->isAtLeast($row->temperature); --$back) {
                    $first = $readings[$back];
                    if ($back === 0 || !self::goesOn($readings[$back - 1], $first, $row, $rules)) {
                        break;
                    }
                }
                if ($first !== null && $last->at - $first->at + $rules->settled->seconds >= $row->dwell->seconds) {
                    return [$row, $first, $last];
                }
            }
        }

        return null;
    }

    private static function goesOn(
        TrackReading $before,
        TrackReading $reading,
        CookingRow $row,
        CookingRules $rules,
    ): bool {
        $gap = $reading->leftOut->gap ?? $reading->at - $before->at;
        foreach ($reading->leftOut->lowest ?? [] as $unit => $lowest) {
            if ($lowest < $row->temperature->levelIn(TemperatureUnit::from($unit))) {
                return false;
            }
        }

        return $gap <= $rules->runGap->seconds;
    }

    /**
     * @param list<TrackReading> $readings
     * @param list<CookingRow> $rows
     */
    private static function isHotEnough(array $readings, array $rows): bool
    {
        foreach ($readings as $reading) {
            if ($reading->temp->isAtLeast($rows[0]->temperature)) {
                return true;
            }
        }

        return false;
    }

    /** @return list<TrackReading> */
    private static function readings(Randomizer $chance, int $count): array
    {
        $readings = [];
        $at = 0;
        $fahrenheit = $chance->getInt(1200, 1600);
        for ($order = 0; $order < $count; ++$order) {
            $at += $chance->getInt(0, 4) === 0 ? $chance->getInt(0, 3600) : $chance->getInt(0, 240);
            $fahrenheit += $chance->getInt(-40, 55);
            $isCelsius = $chance->getInt(0, 4) === 0;
            $temp = $isCelsius
                ? Temperature::ofTenths(intdiv(($fahrenheit - 320) * 5, 9), TemperatureUnit::Celsius)
                : Temperature::ofTenths($fahrenheit, TemperatureUnit::Fahrenheit);
            $leftOut = $order > 0 && $chance->getInt(0, 5) === 0
                ? new OmittedReadings(
                    3,
                    $chance->getInt(0, 1200),
                    ['F' => $temp->ninetieths - $chance->getInt(0, 90)],
                    null,
                    0,
                    0,
                    0,
                )
                : null;
            $readings[] = new TrackReading("r$order", $at, $order, $temp, 1, 'core', '1/core', 'T1', $leftOut);
        }

        return $readings;
    }
}
