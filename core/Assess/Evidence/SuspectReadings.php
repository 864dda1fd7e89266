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
    private function __construct(private array $checks, private bool $hasFailures)
    {
    }

    /** @param list<Thermometer> $thermometers */
    public static function of(array $thermometers, Tolerance $tolerance): self
    {
        $checks = [];
        $hasFailures = false;
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
            $hasFailures = $hasFailures || \in_array(true, array_column($ofOne, 1), true);
        }

        return new self($checks, $hasFailures);
    }

    /** A reading whose thermometer failed its last check at or before it, or its first check after it. */
    public function includes(Reading $reading): bool
    {
        if (!$this->hasFailures || $reading->thermometer === null) {
            return false;
        }
        $checks = $this->checks[$reading->thermometer] ?? [];
        $next = self::firstAfter($checks, $reading->at);

        return ($checks[$next - 1][1] ?? false) || ($checks[$next][1] ?? false);
    }

    /** Whether the thermometer's last check before this reading was longer ago than this, or came only afterwards. */
    public function isOverdueAt(Reading $reading, Span $within): bool
    {
        $checks = $this->checks[$reading->thermometer] ?? [];
        $last = $checks[self::firstAfter($checks, $reading->at) - 1] ?? null;

        return $last === null || $reading->at - $last[0] > $within->seconds;
    }

    /** Whether the thermometer of this reading was ever checked. */
    public function hasCheckOf(Reading $reading): bool
    {
        return $reading->thermometer !== null && ($this->checks[$reading->thermometer] ?? []) !== [];
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
