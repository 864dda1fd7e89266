<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\RecordedThermometer;
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

    /** @param list<RecordedThermometer> $thermometers */
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
     * Suspect is a reading whose thermometer failed its last check at or before it, or its first check after it;
     * unchecked one whose thermometer never was; overdue one whose thermometer's last check was longer ago than this,
     * or came only afterwards. Between two checks all that a thermometer read in a row stand the same.
     *
     * @param Trace $readings all of a record
     */
    public function sorted(Trace $readings, Span $within): SortedReadings
    {
        $suspect = $unchecked = $overdue = [];
        foreach ($readings->byThermometer() as [$from, $end, $label]) {
            $checks = $label === null ? [] : $this->checks[$label] ?? [];
            if ($checks === []) {
                $unchecked[] = [$from, $end];
                continue;
            }
            while ($from < $end) {
                $next = self::firstAfter($checks, $readings->ats[$from]);
                $until = isset($checks[$next]) ? min($end, $readings->countUntil($checks[$next][0] - 1)) : $end;
                if (($checks[$next - 1][1] ?? false) || ($checks[$next][1] ?? false)) {
                    $suspect[] = [$from, $until];
                }
                $last = $checks[$next - 1][0] ?? null;
                $late = $last === null ? $from : max($from, $readings->countUntil($last + $within->seconds));
                if ($late < $until) {
                    $overdue[] = [$late, $until];
                }
                $from = $until;
            }
        }
        $uncheckedCount = $overdueCount = 0;
        foreach ($readings->leftOut() as $leftOut) {
            $uncheckedCount += $leftOut->unchecked;
            $overdueCount += $leftOut->overdue;
        }

        return new SortedReadings(
            self::without($readings, $suspect),
            self::ids($readings, $suspect),
            new DiscountedReadings($readings, $unchecked, $uncheckedCount),
            new DiscountedReadings($readings, $overdue, $overdueCount),
        );
    }

    /** @param list<array{int, int}> $parts from which reading up to which, rising */
    private static function without(Trace $readings, array $parts): Trace
    {
        if ($parts === []) {
            return $readings;
        }
        $believed = [];
        $from = 0;
        foreach ([...$parts, [$readings->size(), 0]] as [$until, $next]) {
            for ($index = $from; $index < $until; ++$index) {
                $believed[] = $index;
            }
            $from = $next;
        }

        return $readings->only($believed);
    }

    /**
     * @param list<array{int, int}> $parts from which reading up to which
     *
     * @return list<string>
     */
    private static function ids(Trace $readings, array $parts): array
    {
        $ids = [];
        foreach ($parts as [$from, $until]) {
            for ($index = $from; $index < $until; ++$index) {
                $ids[] = $readings->at($index)->id;
            }
        }

        return $ids;
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
