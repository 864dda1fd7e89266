<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Thermometer;
use Verjuicer\Core\Record\ThermometerCheck;
use Verjuicer\Core\Ruleset\Tolerance;

/**
 * Which readings a failed thermometer check throws into doubt: those up to it, and those after it until one that
 * passed.
 */
final readonly class SuspectReadings
{
    /**
     * @param array<string, list<array{int, bool}>> $checks by thermometer: seconds, and whether it failed, in order of
     *     time
     */
    private function __construct(private array $checks)
    {
    }

    /** @param list<Thermometer> $thermometers */
    public static function of(array $thermometers, Tolerance $tolerance): self
    {
        $checks = [];
        foreach ($thermometers as $thermometer) {
            $ofOne = array_map(
                static fn (ThermometerCheck $check): array => [
                    $check->at->epoch,
                    !$tolerance->covers($check->expected, $check->read),
                ],
                $thermometer->checks,
            );
            usort($ofOne, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
            $checks[$thermometer->id] = $ofOne;
        }

        return new self($checks);
    }

    /**
     * One pass over readings in order of time. Suspect is one whose thermometer failed its last check at or before
     * it, or its first check after it; unchecked one whose thermometer never was; overdue one whose thermometer's last
     * check was longer ago than this, or came only afterwards.
     *
     * @param list<Reading> $readings
     */
    public function sorted(array $readings, Span $within): SortedReadings
    {
        $believed = $suspectIds = $unchecked = $overdue = [];
        $uncheckedCount = $overdueCount = 0;
        $longest = $within->seconds;
        // Between two checks of a thermometer every reading of it stands the same.
        $of = $last = null;
        $from = $before = 0;
        $isSuspect = false;
        foreach ($readings as $index => $reading) {
            if ($reading->leftOut !== null) {
                $uncheckedCount += $reading->leftOut->unchecked;
                $overdueCount += $reading->leftOut->overdue;
            }
            $label = $reading->thermometer;
            $at = $reading->at;
            if ($label === null || $label !== $of || $at < $from || $at >= $before) {
                $checks = $label === null ? [] : $this->checks[$label] ?? [];
                if ($checks === []) {
                    $unchecked[] = $reading;
                    if ($suspectIds !== []) {
                        $believed[] = $reading;
                    }
                    continue;
                }
                $next = self::firstAfter($checks, $at);
                $of = $label;
                $last = $checks[$next - 1][0] ?? null;
                $from = $last ?? \PHP_INT_MIN;
                $before = $checks[$next][0] ?? \PHP_INT_MAX;
                $isSuspect = ($checks[$next - 1][1] ?? false) || ($checks[$next][1] ?? false);
            }
            if ($isSuspect) {
                if ($suspectIds === []) {
                    $believed = \array_slice($readings, 0, $index);
                }
                $suspectIds[] = $reading->id;
            } elseif ($suspectIds !== []) {
                $believed[] = $reading;
            }
            if ($last === null || $at - $last > $longest) {
                $overdue[] = $reading;
            }
        }

        return new SortedReadings(
            $suspectIds === [] ? $readings : $believed,
            $suspectIds,
            $unchecked,
            $overdue,
            $uncheckedCount + \count($unchecked),
            $overdueCount + \count($overdue),
        );
    }

    /** @param list<array{int, bool}> $checks */
    private static function firstAfter(array $checks, int $at): int
    {
        $low = 0;
        $high = \count($checks);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($checks[$middle][0] <= $at) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
