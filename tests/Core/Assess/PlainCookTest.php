<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Tests\Core\Story;

/**
 * Cooking non-intact meat, and time in place of temperature, read word by word, from the rules alone, beside what the
 * checks say: over thousands of chance records of two pieces read in °F. Times are in minutes.
 *
 * @phpstan-type Read array{at: int, f: int, piece: int, spot: string, place: int}
 * @phpstan-type Part array{kind: string, from: int, to: int, open: bool, place: int, end: int}
 */
final class PlainCookTest extends TestCase
{
    /** °F, and minutes there; a settled reading is worth a third of one. */
    private const ROWS = [[145, 3.0], [150, 1.0], [155, 17 / 60], [158, 0.0]];
    private const SETTLED = 1 / 3;
    private const MIDDLE = 70;
    private const HOT = 135;

    public function testACookIsWhatTheRulesSayWordByWord(): void
    {
        $chance = new Randomizer(new Mt19937(59));
        $seen = ['met' => 0, 'stopped' => 1000, 'running' => 0, 'not_shown' => 0, 'broken' => 0];
        for ($run = 0; $run < 5000; ++$run) {
            [$lines, $asOf] = $this->cooked($chance);
            $said = Story::of(...$lines)->about('pork cut non_intact 2pieces')->assess((string) $asOf)->rulesJudged;
            $plain = $this->cook($lines, $asOf);
            self::assertSame(
                $plain->value,
                ($said['cook'] ?? null)?->value,
                "run $run: ".implode(', ', $lines)." as of $asOf",
            );
            ++$seen[$plain->value];
        }
        self::assertGreaterThan(100, min($seen), 'each comes often');
    }

    public function testTimeInPlaceOfTemperatureIsWhatTheRulesSayWordByWord(): void
    {
        $chance = new Randomizer(new Mt19937(61));
        $seen = ['met' => 0, 'stopped' => 1000, 'running' => 0, 'not_shown' => 0, 'broken' => 0];
        for ($run = 0; $run < 3000; ++$run) {
            [$lines, $asOf] = $this->served($chance);
            $said = Story::of(...$lines)->about('pork cut 2pieces')->assess((string) $asOf)->rulesJudged;
            $plain = $this->timeControl($lines, $asOf);
            self::assertSame(
                $plain?->value,
                ($said['time_control'] ?? null)?->value,
                "run $run: ".implode(', ', $lines)." as of $asOf",
            );
            $seen[$plain->value ?? 'met'] += $plain === null ? 0 : 1;
        }
        self::assertGreaterThan(20, min($seen), 'each comes often');
    }

    /** @param list<string> $lines */
    private function cook(array $lines, int $asOf): Verdict
    {
        [$reads, $parts, $moves] = self::parsed($lines, $asOf);
        $worst = Verdict::Met;
        $window = [];
        foreach ([...$parts, null] as $part) {
            if ($part !== null && ($part['kind'] === 'cook' || ($window !== [] && $part['kind'] === 'rest'))) {
                $window[] = $part;
                continue;
            }
            $worst = $window === [] ? $worst : $worst->worseOf($this->window($window, $reads, $moves));
            $window = [];
        }

        return $worst;
    }

    /**
     * @param non-empty-list<Part> $window
     * @param list<Read> $all
     * @param array<int, string> $moves the track that is left, by place
     */
    private function window(array $window, array $all, array $moves): Verdict
    {
        $last = $window[\count($window) - 1];
        [$from, $isOpen] = [$window[0], $last['open']];
        $lastCook = array_values(
            array_filter($window, static fn (array $part): bool => $part['kind'] === 'cook'),
        );
        $offTheHeat = $lastCook[\count($lastCook) - 1]['to'];
        $tracks = [];
        foreach ($all as $one) {
            if ($one['place'] > $from['place'] && $one['place'] < $last['end']) {
                $tracks[$one['piece'].'/'.$one['spot']][] = $one;
            }
        }
        foreach ($moves as $place => $track) {
            // A probe that is moved before anything is reached takes its readings with it.
            $before = array_filter($tracks[$track] ?? [], static fn (array $one): bool => $one['place'] < $place);
            if ($before !== [] && $place < $last['end'] && !$this->isReached(array_values($before))) {
                $tracks[$track] = array_values(
                    array_filter($tracks[$track], static fn (array $one): bool => $one['place'] > $place),
                );
            }
        }
        $tracks = array_filter($tracks, static fn (array $ofTrack): bool => $ofTrack !== []);
        $counted = [];
        foreach ($tracks as $track => $ofTrack) {
            $final = $ofTrack[\count($ofTrack) - 1];
            $isRaw = max(array_column($ofTrack, 'f')) < self::MIDDLE && $final['at'] <= $from['from'] + 60;
            $isElsewhere = false;
            foreach ($tracks as $other => $ofOther) {
                foreach ($other === $track ? [] : $ofOther as $one) {
                    $isElsewhere = $isElsewhere || ($one['piece'] === $final['piece']
                        && $one['place'] > $final['place'] && $one['f'] >= self::MIDDLE);
                }
            }
            if (!$isRaw || !$isElsewhere) {
                $counted[$track] = $ofTrack;
            }
        }
        $unproven = $isOpen ? Verdict::Running : Verdict::NotShown;
        $pieces = array_unique(array_map(static fn (array $ofTrack): int => $ofTrack[0]['piece'], $counted));
        $worst = \count($pieces) < 2 ? $unproven : Verdict::Met;
        foreach ($counted as $ofTrack) {
            $isHot = max(array_column($ofTrack, 'f')) >= self::ROWS[0][0];
            $isLooked = $ofTrack[\count($ofTrack) - 1]['at'] >= $offTheHeat - 30;
            $worst = $worst->worseOf(match (true) {
                $this->isReached($ofTrack) => Verdict::Met,
                $isOpen => Verdict::Running,
                !$isHot && $isLooked => Verdict::Broken,
                default => Verdict::NotShown,
            });
        }

        return $worst;
    }

    /** @param list<Read> $ofTrack */
    private function isReached(array $ofTrack): bool
    {
        foreach (self::ROWS as [$degrees, $dwell]) {
            $first = $before = null;
            foreach ($ofTrack as $one) {
                $goesOn = $first !== null && $one['at'] - (int) $before <= 30;
                $first = $one['f'] < $degrees ? null : ($goesOn ? $first : $one['at']);
                $before = $one['at'];
                if ($first !== null && $dwell <= $one['at'] - $first + self::SETTLED) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @param list<string> $lines */
    private function timeControl(array $lines, int $asOf): ?Verdict
    {
        [$reads, $parts, , $ways] = self::parsed($lines, $asOf);
        $worst = null;
        foreach ($parts as $index => $part) {
            if ($part['kind'] !== 'time_control') {
                continue;
            }
            $way = $ways[$part['place']];
            $around = array_filter(
                $reads,
                static fn (array $one): bool => $one['at'] >= $part['from'] - 30 && $one['at'] <= $part['from'] + 5,
            );
            $start = $around === [] ? null : $around[array_key_last($around)]['f'];
            $within = array_filter(
                $reads,
                static fn (array $one): bool => $one['place'] > $part['place'] && $one['place'] < $part['end'],
            );
            $next = $parts[$index + 1]['kind'] ?? null;
            $held = $part['to'] - $part['from'];
            $verdicts = [$part['open'] ? Verdict::Running : Verdict::Met];
            if ($start === null) {
                $isSoon = $part['open'] && $asOf <= $part['from'] + 5;
                $verdicts[] = $isSoon ? Verdict::Running : Verdict::NotShown;
            } elseif ($way === 'hot_4h' ? $start < self::HOT : $start > 41) {
                $verdicts[] = Verdict::Broken;
            }
            if ($held > ($way === 'cold_6h' ? 360 : 240)) {
                $verdicts[] = Verdict::Broken;
            }
            if ($next !== null && !\in_array($next, ['serve', 'discard', 'close'], true)) {
                $verdicts[] = Verdict::Broken;
            }
            if ($way === 'cold_6h' && $within !== [] && max(array_column($within, 'f')) > self::MIDDLE) {
                $verdicts[] = Verdict::Broken;
            }
            if ($way === 'cold_6h' && $within === [] && $held > 240) {
                $verdicts[] = Verdict::NotShown;
            }
            foreach ($verdicts as $verdict) {
                $worst = $verdict->worseOf($worst ?? Verdict::Met);
            }
        }

        return $worst;
    }

    /**
     * @param list<string> $lines
     *
     * @return array{list<Read>, list<Part>, array<int, string>, array<int, string>} readings, stages, probe moves and
     *     the ways of time control by their place
     */
    private static function parsed(array $lines, int $asOf): array
    {
        $reads = $parts = $moves = $ways = [];
        $counted = array_values(array_filter($lines, static fn (string $line): bool => (int) $line <= $asOf));
        foreach ($counted as $place => $line) {
            $words = explode(' ', $line);
            [$at, $what] = [(int) $words[0], $words[1]];
            $piece = (int) substr($words[2] ?? 'p1', 1);
            $spot = substr($words[3] ?? '@core', 1);
            if (is_numeric($what)) {
                $reads[] = ['at' => $at, 'f' => (int) $what, 'piece' => $piece, 'spot' => $spot, 'place' => $place];
            } elseif ($what === 'probe_moved') {
                $moves[$place] = $piece.'/'.$spot;
            } else {
                if ($parts !== []) {
                    $last = \count($parts) - 1;
                    $parts[$last] = ['to' => $at, 'open' => false, 'end' => $place] + $parts[$last];
                }
                $ways[$place] = substr($words[2] ?? 'plan=', 5);
                $parts[] = ['kind' => $what, 'from' => $at, 'to' => $asOf, 'open' => true]
                    + ['place' => $place, 'end' => \count($counted)];
            }
        }

        return [$reads, $parts, $moves, $ways];
    }

    /** @return array{list<string>, int} */
    private function cooked(Randomizer $chance): array
    {
        $lines = ['0 cook'];
        $minute = 0;
        $degrees = [1 => $chance->getInt(38, 150), 2 => $chance->getInt(38, 150)];
        for ($count = $chance->getInt(1, 12); $count > 0; --$count) {
            $minute += $chance->getInt(0, 4) > 3 ? $chance->getInt(0, 90) : $chance->getInt(0, 31);
            $piece = $chance->getInt(1, 2);
            $spot = $chance->getInt(0, 3) > 2 ? 'flat' : 'core';
            $what = $chance->getInt(0, 11);
            $degrees[$piece] = match ($chance->getInt(0, 4)) {
                0 => [69, 70, 144, 145, 149, 150, 154, 155, 157, 158][$chance->getInt(0, 9)],
                default => max(36, min(165, $degrees[$piece] + $chance->getInt(-6, 25))),
            };
            $lines[] = match ($what) {
                0 => "$minute rest",
                1 => "$minute cook",
                2 => "$minute probe_moved p$piece @$spot",
                default => "$minute $degrees[$piece] p$piece @$spot",
            };
        }
        if ($chance->getInt(0, 2) > 0) {
            $lines[] = ($minute += $chance->getInt(0, 40)).' '.['rest', 'serve', 'hot_hold'][$chance->getInt(0, 2)];
        }

        return [$lines, $minute + $chance->getInt(0, 60)];
    }

    /** @return array{list<string>, int} */
    private function served(Randomizer $chance): array
    {
        $way = ['hot_4h', 'cold_4h', 'cold_6h'][$chance->getInt(0, 2)];
        $limits = $way === 'hot_4h' ? [134, 135, 150] : [38, 41, 42];
        $lines = ['0 cook'];
        $minute = $chance->getInt(40, 200);
        if ($chance->getInt(0, 4) > 0) {
            $lines[] = ($minute - $chance->getInt(0, 40)).' '.$limits[$chance->getInt(0, 2)];
        }
        $lines[] = "$minute time_control plan=$way";
        for ($count = $chance->getInt(0, 3); $count > 0; --$count) {
            $minute += $chance->getInt(0, 100);
            $lines[] = "$minute ".[40, 60, 70, 71, 135, 140][$chance->getInt(0, 5)];
        }
        $minute += [0, 5, 60, 200, 240, 241][$chance->getInt(0, 5)];
        if ($chance->getInt(0, 2) > 0) {
            $lines[] = "$minute ".['serve', 'discard', 'cold_hold', 'close'][$chance->getInt(0, 3)];
        }

        return [$lines, $minute + $chance->getInt(0, 1) * $chance->getInt(0, 90)];
    }
}
