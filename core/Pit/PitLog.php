<?php

declare(strict_types=1);

namespace Verjuicer\Core\Pit;

use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\Tolerance;

/** The entries at one pit in order of time, and their findings. A house view: it decides no verdict. */
final readonly class PitLog
{
    /** @var list<PitEntry> */
    public array $entries;

    /** @param list<PitEntry> $entries in any order; of one second, as they were written down */
    public function __construct(array $entries)
    {
        usort($entries, static fn (PitEntry $one, PitEntry $other): int => $one->at->epoch <=> $other->at->epoch);
        $this->entries = $entries;
    }

    public function setAt(Instant $at): ?Temperature
    {
        return $this->lastOf(PitSign::Set, $at)?->temp;
    }

    public function lastReading(Instant $asOf): ?PitEntry
    {
        return $this->lastOf(PitSign::Reading, $asOf);
    }

    /** Whether a fire burns in it: lit, and not out since. */
    public function isLitAt(Instant $at): bool
    {
        $isLit = false;
        foreach ($this->until($at) as $entry) {
            $isLit = match ($entry->sign) {
                PitSign::Lit => true,
                PitSign::Out => false,
                default => $isLit,
            };
        }

        return $isLit;
    }

    /**
     * The times for which readings were too far from the set point for at least this long. A new fire has until it is
     * preheated or first read at its set point; a new set point starts over.
     *
     * @return list<PitExcursion>
     */
    public function strays(Tolerance $tolerance, Span $for, Instant $asOf): array
    {
        $strays = [];
        $set = null;
        $isReady = true;
        /** @var list<array{PitEntry, Temperature}> $run */
        $run = [];
        foreach ($this->until($asOf) as $entry) {
            $temp = $entry->temp;
            if ($entry->sign === PitSign::Reading && $temp !== null && $set !== null) {
                $isOut = !$tolerance->covers($set, $temp);
                $isReady = $isReady || !$isOut;
                if ($run !== [] && (!$isOut || $temp->isHotterThan($set) !== $run[0][1]->isHotterThan($set))) {
                    $strays[] = self::stray($run, $entry->at, $set, $for, false);
                    $run = [];
                }
                if ($isOut && $isReady) {
                    $run[] = [$entry, $temp];
                }

                continue;
            }
            if ($entry->sign === PitSign::Set || $entry->sign === PitSign::Lit || $entry->sign === PitSign::Out) {
                if ($run !== [] && $set !== null) {
                    $strays[] = self::stray($run, $entry->at, $set, $for, false);
                }
                $run = [];
                $set = match ($entry->sign) {
                    PitSign::Set => $temp,
                    PitSign::Out => null,
                    default => $set,
                };
            }
            $isReady = match ($entry->sign) {
                PitSign::Lit => false,
                PitSign::Preheated => true,
                default => $isReady,
            };
        }
        if ($run !== [] && $set !== null) {
            $strays[] = self::stray($run, $asOf, $set, $for, true);
        }

        return array_values(array_filter($strays, static fn (?PitExcursion $stray): bool => $stray !== null));
    }

    /** @param non-empty-list<array{PitEntry, Temperature}> $run */
    private static function stray(array $run, Instant $to, Temperature $set, Span $for, bool $isOpen): ?PitExcursion
    {
        $from = $run[0][0]->at;
        $isHot = $run[0][1]->isHotterThan($set);
        $shownTo = $isOpen ? $to : $run[\count($run) - 1][0]->at;
        if (Span::between($from, $shownTo)->seconds < $for->seconds) {
            return null;
        }
        $worst = $run[0][1];
        foreach ($run as [, $temp]) {
            if ($isHot ? $temp->isHotterThan($worst) : $worst->isHotterThan($temp)) {
                $worst = $temp;
            }
        }

        return new PitExcursion($from, $to, $isOpen, $isHot, $worst, $set);
    }

    private function lastOf(PitSign $sign, Instant $asOf): ?PitEntry
    {
        $last = null;
        foreach ($this->until($asOf) as $entry) {
            if ($entry->sign === $sign) {
                $last = $entry;
            } elseif ($entry->sign === PitSign::Out && $sign === PitSign::Set) {
                $last = null;
            }
        }

        return $last;
    }

    /** @return \Generator<PitEntry> */
    private function until(Instant $asOf): \Generator
    {
        foreach ($this->entries as $entry) {
            if ($entry->at->isAfter($asOf)) {
                return;
            }
            yield $entry;
        }
    }
}
