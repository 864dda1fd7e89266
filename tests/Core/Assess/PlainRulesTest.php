<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Tests\Core\Story;

/**
 * Holding hot and cold, resting, cooling and reheating read word by word, from the rules alone, beside what the checks
 * say: over thousands of chance records of one whole cut read in °F. Times are in minutes.
 *
 * @phpstan-type Read array{at: int, f: int, track: string, place: int}
 * @phpstan-type Part array{kind: string, from: int, to: int, open: bool, place: int, end: int}
 */
final class PlainRulesTest extends TestCase
{
    private const HOT = 135;
    private const MIDDLE = 70;
    private const COLD = 41;
    private const REHEATED = 165;
    private const OFF_THE_HEAT = ['rest', 'prep', 'cool', 'cold_hold', 'freeze'];
    private const GATES = ['cool.stage1' => [self::MIDDLE, 120], 'cool.total' => [self::COLD, 360]];
    private const JUDGED = ['hot_hold', 'cool.stage1', 'cool.total', 'rest', 'cold_hold', 'reheat'];

    public function testTheChecksSayWhatTheRulesSayWordByWord(): void
    {
        $chance = new Randomizer(new Mt19937(53));
        $seen = [];
        for ($run = 0; $run < 6000; ++$run) {
            [$lines, $asOf] = $this->story($chance);
            $assessment = Story::of(...$lines)->about('turkey cut 2pieces')->assess((string) $asOf);
            $said = array_intersect_key($assessment->rulesJudged, array_flip(self::JUDGED));
            $plain = $this->plain($lines, $asOf);
            ksort($said);
            ksort($plain);
            self::assertSame(
                array_map(static fn (Verdict $one): string => $one->value, $plain),
                array_map(static fn (Verdict $one): string => $one->value, $said),
                "run $run: ".implode(', ', $lines)." as of $asOf",
            );
            foreach ($plain as $rule => $verdict) {
                $seen[$rule.' '.$verdict->value] = ($seen[$rule.' '.$verdict->value] ?? 0) + 1;
            }
        }
        foreach (['hot_hold', 'cool.stage1', 'cool.total', 'reheat'] as $rule) {
            foreach (['met', 'running', 'not_shown', 'broken'] as $verdict) {
                self::assertGreaterThan(10, $seen["$rule $verdict"] ?? 0, "$rule is $verdict often enough");
            }
        }
        self::assertGreaterThan(10, $seen['rest not_shown'] ?? 0);
        self::assertGreaterThan(10, $seen['cold_hold broken'] ?? 0);
        self::assertGreaterThan(10, $seen['cool.total stopped'] ?? 0);
        self::assertGreaterThan(2, $seen['reheat stopped'] ?? 0);
    }

    /**
     * @param list<string> $lines
     *
     * @return array<string, Verdict> the worst of each rule
     */
    private function plain(array $lines, int $asOf): array
    {
        [$reads, $parts] = self::parsed($lines, $asOf);
        $said = [];
        foreach ($parts as $index => $part) {
            if ($part['kind'] === 'hot_hold') {
                $said[] = ['hot_hold', $this->hotHold($part, self::within($reads, $part))];
            }
            if ($part['kind'] === 'reheat') {
                $next = $parts[$index + 1]['kind'] ?? null;
                array_push($said, ...$this->reheat($part, $reads, $next === 'discard'));
            }
        }
        foreach ($this->blocks($parts) as $block) {
            array_push($said, ...$this->block($block, $reads));
        }
        $inBlock = array_merge([], ...$this->blocks($parts));
        foreach ($parts as $part) {
            if ($part['kind'] === 'cold_hold' && !\in_array($part, $inBlock, true)) {
                foreach (self::byTrack(self::within($reads, $part)) as $ofTrack) {
                    $isWarm = max(array_column($ofTrack, 'f')) > self::COLD;
                    $said[] = ['cold_hold', $isWarm ? Verdict::Broken : Verdict::Met];
                }
            }
        }
        $worst = [];
        foreach ($said as [$rule, $verdict]) {
            $worst[$rule] = $verdict->worseOf($worst[$rule] ?? Verdict::Met);
        }

        return $worst;
    }

    /**
     * @param Part $part
     * @param list<Read> $reads in it
     */
    private function hotHold(array $part, array $reads): Verdict
    {
        if ($reads !== [] && min(array_column($reads, 'f')) < self::HOT) {
            return Verdict::Broken;
        }
        $moments = [$part['from'], ...array_column($reads, 'at'), $part['to']];
        if (self::longest($moments) > 240 || ($reads === [] && !$part['open'])) {
            return Verdict::NotShown;
        }

        return $part['open'] ? Verdict::Running : Verdict::Met;
    }

    /**
     * @param Part $part
     * @param list<Read> $all
     *
     * @return list<array{string, Verdict}>
     */
    private function reheat(array $part, array $all, bool $isDiscarded): array
    {
        $reads = self::within($all, $part);
        if ($reads === []) {
            $isSoon = $part['open'] && $part['to'] - $part['from'] <= 120;

            return [['reheat', $isSoon ? Verdict::Running : Verdict::NotShown]];
        }
        $said = [];
        foreach (self::byTrack($reads) as $track => $ofTrack) {
            $hit = self::first($ofTrack, static fn (array $one): bool => $one['f'] >= self::REHEATED);
            $cold = array_filter(
                $hit === null ? $ofTrack : $all,
                static fn (array $one): bool => $one['track'] === $track
                    && $one['f'] <= self::COLD
                    && ($hit === null || $one['place'] < $hit['place']),
            );
            $early = max($part['from'], ...array_column($cold, 'at'), ...[0]);
            $late = self::first(
                $ofTrack,
                static fn (array $one): bool => $one['at'] >= $early && $one['f'] > self::COLD,
            )['at'] ?? null;
            if ($hit !== null) {
                $before = array_filter($ofTrack, static fn (array $one): bool => $one['place'] < $hit['place']);
                $previous = $before === [] ? null : $before[array_key_last($before)]['at'];
                $least = $previous === null || $late === null ? 0 : max(0, $previous - $late);
                $said[] = ['reheat', self::elapsed($least, $hit['at'] - $early, 120)];
                continue;
            }
            $last = $ofTrack[array_key_last($ofTrack)]['at'];
            $isInTime = $part['to'] - $early <= 120;
            $said[] = ['reheat', match (true) {
                $late !== null && $last - $late > 120 => Verdict::Broken,
                $part['open'] && $isInTime => Verdict::Running,
                !$part['open'] && $isDiscarded && $isInTime => Verdict::Stopped,
                default => Verdict::NotShown,
            }];
        }

        return $said;
    }

    /**
     * @param non-empty-list<Part> $block
     * @param list<Read> $all
     *
     * @return list<array{string, Verdict}>
     */
    private function block(array $block, array $all): array
    {
        $first = $block[0];
        $last = $block[\count($block) - 1];
        $whole = ['from' => $first['from'], 'to' => $last['to'], 'open' => $last['open'], 'kind' => 'block']
            + ['place' => $first['place'], 'end' => $last['end']];
        $reads = self::within($all, $whole);
        $isCooled = array_intersect(array_column($block, 'kind'), ['cool', 'cold_hold', 'freeze']) !== [];
        $said = [];
        $isBelow = false;
        foreach (self::byTrack($reads) as $track => $ofTrack) {
            $below = self::first($ofTrack, static fn (array $one): bool => $one['f'] < self::HOT);
            if ($below !== null) {
                $isBelow = true;
                foreach (self::GATES as $rule => [$gate, $limit]) {
                    $early = self::lastHot($all, $below['place'], $track)
                        ?? self::lastHot($all, $below['place'], null)
                        ?? $whole['from'];
                    $said[] = [$rule, self::gate($ofTrack, $below, $gate, $limit, $early, $whole)];
                }
            }
            $wasCold = false;
            foreach ($ofTrack as $one) {
                $isIn = array_filter(
                    $block,
                    static fn (array $part): bool => $part['kind'] === 'cold_hold'
                        && $one['place'] > $part['place'] && $one['place'] < $part['end'],
                );
                if ($wasCold && $one['f'] > self::COLD && $isIn !== []) {
                    $said[] = ['cold_hold', Verdict::Broken];
                }
                $wasCold = $wasCold || $one['f'] <= self::COLD;
            }
        }
        if (!$isBelow && $isCooled) {
            $early = self::lastHot($all, $whole['end'], null) ?? $whole['from'];
            foreach (['cool.stage1' => 120, 'cool.total' => 360] as $rule => $limit) {
                $said[] = [$rule, match (true) {
                    $limit < $whole['to'] - $early => Verdict::NotShown,
                    $whole['open'] => Verdict::Running,
                    default => Verdict::Stopped,
                }];
            }
        }
        if (!$isBelow && !$isCooled) {
            $moments = [$whole['from'], ...array_column($reads, 'at'), $whole['to']];
            $isShown = self::longest($moments) <= 120;
            $said[] = ['rest', !$isShown ? Verdict::NotShown : ($whole['open'] ? Verdict::Running : Verdict::Met)];
        }

        return $said;
    }

    /**
     * @param non-empty-list<Read> $ofTrack
     * @param Read $below
     * @param Part $whole
     */
    private static function gate(
        array $ofTrack,
        array $below,
        int $gate,
        int $limit,
        int $early,
        array $whole,
    ): Verdict {
        $previous = null;
        foreach ($ofTrack as $one) {
            if ($one['place'] >= $below['place'] && $one['f'] <= $gate) {
                $least = $previous === null ? 0 : max(0, $previous - $below['at']);

                return self::elapsed($least, $one['at'] - $early, $limit);
            }
            $previous = $one['at'];
        }
        $least = $ofTrack[array_key_last($ofTrack)]['at'] - $below['at'];

        return match (true) {
            $least > $limit => Verdict::Broken,
            $limit < $whole['to'] - $early => Verdict::NotShown,
            default => $whole['open'] ? Verdict::Running : Verdict::Stopped,
        };
    }

    private static function elapsed(int $least, int $most, int $limit): Verdict
    {
        return $most <= $limit ? Verdict::Met : ($least > $limit ? Verdict::Broken : Verdict::NotShown);
    }

    /** @param list<Read> $all */
    private static function lastHot(array $all, int $before, ?string $track): ?int
    {
        $hot = array_filter(
            $all,
            static fn (array $one): bool => $one['place'] < $before
                && $one['f'] >= self::HOT
                && ($track === null || $one['track'] === $track),
        );

        return $hot === [] ? null : $hot[array_key_last($hot)]['at'];
    }

    /**
     * @param list<Part> $parts
     *
     * @return list<non-empty-list<Part>> runs off the heat, directly after a cook, a hot hold or a reheat
     */
    private function blocks(array $parts): array
    {
        $blocks = [];
        $block = [];
        $before = null;
        foreach ([...$parts, null] as $part) {
            if ($part !== null && \in_array($part['kind'], self::OFF_THE_HEAT, true)) {
                $block[] = $part;
                continue;
            }
            if ($block !== [] && \in_array($before, ['cook', 'hot_hold', 'reheat'], true)) {
                $blocks[] = $block;
            }
            $block = [];
            $before = $part['kind'] ?? null;
        }

        return $blocks;
    }

    /**
     * @param list<string> $lines
     *
     * @return array{list<Read>, list<Part>}
     */
    private static function parsed(array $lines, int $asOf): array
    {
        $reads = $parts = [];
        $counted = array_values(array_filter($lines, static fn (string $line): bool => (int) $line <= $asOf));
        foreach ($counted as $place => $line) {
            [$at, $what, $piece] = explode(' ', $line.' p1');
            if (is_numeric($what)) {
                $reads[] = ['at' => (int) $at, 'f' => (int) $what, 'track' => $piece, 'place' => $place];
                continue;
            }
            if ($parts !== []) {
                $last = \count($parts) - 1;
                $parts[$last] = ['to' => (int) $at, 'open' => false, 'end' => $place] + $parts[$last];
            }
            $parts[] = ['kind' => $what, 'from' => (int) $at, 'to' => $asOf, 'open' => true]
                + ['place' => $place, 'end' => \count($counted)];
        }

        return [$reads, $parts];
    }

    /**
     * @param list<Read> $reads
     * @param Part $part
     *
     * @return list<Read>
     */
    private static function within(array $reads, array $part): array
    {
        return array_values(
            array_filter(
                $reads,
                static fn (array $one): bool => $one['place'] > $part['place'] && $one['place'] < $part['end'],
            ),
        );
    }

    /**
     * @param list<Read> $reads
     *
     * @return array<string, non-empty-list<Read>>
     */
    private static function byTrack(array $reads): array
    {
        $byTrack = [];
        foreach ($reads as $one) {
            $byTrack[$one['track']][] = $one;
        }

        return $byTrack;
    }

    /**
     * @param list<Read> $reads
     * @param \Closure(Read): bool $is
     *
     * @return Read|null
     */
    private static function first(array $reads, \Closure $is): ?array
    {
        return array_values(array_filter($reads, $is))[0] ?? null;
    }

    /** @param list<int> $moments */
    private static function longest(array $moments): int
    {
        $longest = 0;
        for ($index = 1; $index < \count($moments); ++$index) {
            $longest = max($longest, $moments[$index] - $moments[$index - 1]);
        }

        return $longest;
    }

    /** @return array{list<string>, int} what was written down, in order, and the moment it is judged at */
    private function story(Randomizer $chance): array
    {
        $stages = ['rest', 'prep', 'cool', 'cold_hold', 'freeze', 'hot_hold', 'reheat for=hot_hold', 'cook', 'discard'];
        $lines = ['0 cook'];
        $minute = 0;
        $degrees = $chance->getInt(60, 190);
        for ($count = $chance->getInt(1, 14); $count > 0; --$count) {
            $minute += $chance->getInt(0, 4) === 0 ? $chance->getInt(0, 300) : $chance->getInt(0, 80);
            $isStage = $chance->getInt(0, 3) < 1;
            if ($isStage) {
                $lines[] = "$minute ".$stages[$chance->getInt(0, $chance->getInt(4, 8))];
                continue;
            }
            // Now at a limit, now beside one, else anywhere.
            $degrees = match ($chance->getInt(0, 5)) {
                0 => [41, 42, 70, 71, 134, 135, 164, 165][$chance->getInt(0, 7)],
                1 => $chance->getInt(34, 200),
                default => max(34, min(205, $degrees + $chance->getInt(-40, 30))),
            };
            $lines[] = \sprintf('%d %d%s', $minute, $degrees, $chance->getInt(0, 3) > 2 ? ' p2' : '');
        }

        return [$lines, $minute + $chance->getInt(0, 1) * $chance->getInt(0, 200)];
    }
}
