<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Ruleset\DangerZoneRules;

/**
 * One line through readings: those of a piece before a spot was first read, whatever their spot, then that spot's own.
 */
final readonly class Line
{
    /** A second in the unit the estimate is kept in. */
    public const SECOND = 1_000_000_000;

    /**
     * @param int $estimate nanoseconds, rounded at each crossing
     * @param int $unread seconds between leaving the cold and the first reading, where it begins unread
     * @param array<int, int> $stays the stretches of it, where each begins to where it ends, in nanoseconds since 1970;
     *     none adjoins the next
     */
    private function __construct(
        private int $estimate,
        public int $least,
        public int $greatest,
        public bool $beginsUnread,
        public int $unread,
        private array $stays,
        private StageTouch $touch,
    ) {
    }

    /** @return \Generator<self> one a track */
    public static function allOf(CaseFile $case, StageTouch $touch): \Generator
    {
        $ofPiece = [];
        foreach ($case->readings->readings as $reading) {
            $ofPiece[$reading->piece][] = $reading;
        }
        foreach ($case->tracks as $trace) {
            $first = $trace->readings[0];
            $readings = [];
            foreach ($ofPiece[$first->piece] as $reading) {
                if ($reading->order >= $first->order) {
                    break;
                }
                $readings[] = $reading;
            }
            yield self::through([...$readings, $first, ...\array_slice($trace->readings, 1)], $case, $touch);
        }
    }

    /**
     * Whether its estimate is the batch's rather than another's: that of the longest, of those that do not begin unread
     * if there is one.
     */
    public function isToldBefore(self $other): bool
    {
        return $this->beginsUnread === $other->beginsUnread ? $this->estimate > $other->estimate : !$this->beginsUnread;
    }

    public function estimateSeconds(): int
    {
        // Half a second is rounded up; each crossing may have been rounded down by half a nanosecond.
        return self::rounded($this->estimate + 2 * \count($this->stays));
    }

    /** @return array<string, int> seconds of the estimate by kind of stage, in the order of time */
    public function byStage(): array
    {
        $byStage = [];
        foreach ($this->stays as $from => $to) {
            $this->touch->share($from, $to, $byStage);
        }

        return array_filter(array_map(self::rounded(...), $byStage), static fn (int $seconds): bool => $seconds > 0);
    }

    private static function rounded(int $nanoseconds): int
    {
        return intdiv($nanoseconds + (self::SECOND >> 1), self::SECOND);
    }

    /** @param non-empty-list<Reading> $readings in order */
    private static function through(array $readings, CaseFile $case, StageTouch $touch): self
    {
        $hotSpan = $case->rule(DangerZoneRules::class)->hotSpan->seconds;
        $side = new ZoneSide($case->limits->cold->threshold, $case->limits->hot->threshold);
        $estimate = $least = $greatest = 0;
        $stays = [];
        $previous = $until = null;
        $before = $since = $firstSide = 0;
        $unit = null;
        $cold = $hot = 0;
        foreach ($readings as $reading) {
            if ($reading->temp->unit !== $unit) {
                $unit = $reading->temp->unit;
                [$cold, $hot] = $side->levels($unit);
            }
            // Where it lies, by the limits in its own unit: −1 cold, 0 in the zone, 1 hot.
            $after = $reading->level <= $cold ? -1 : ($reading->level >= $hot ? 1 : 0);
            $firstSide = $previous === null ? $after : $firstSide;
            if ($previous !== null && $reading->at > $previous->at) {
                [$from, $to] = [$previous->at, $reading->at];
                $start = $before < 0 && $touch->isKeptAtFirst($from, $to) ? $touch->keptUntil($from, $to) : $from;
                $isHot = $before > 0 && $after > 0 && $to - $from <= $hotSpan && $touch->isOnlyHot($from, $to);
                $isCold = $before < 0 && $after < 0 && $touch->isOnlyKept($from, $to);
                if (!$isHot && !$isCold) {
                    $greatest += $to - $start;
                }
                if ($before === 0 && $after === 0) {
                    $least += $to - $start;
                }
                $stay =
                    $start === $to ? null : $side->stay($previous->temp, $before, $start, $reading->temp, $after, $to);
                if ($stay !== null) {
                    $estimate += $stay[1] - $stay[0];
                    $since = $stay[0] === $until ? $since : $stay[0];
                    $stays[$since] = $until = $stay[1];
                }
            }
            $previous = $reading;
            $before = $after;
        }
        $warm = $touch->firstWarm();
        $first = $readings[0];
        $beginsUnread = $firstSide >= 0 && $warm !== null && $warm < $first->at;
        $unread = $beginsUnread ? $first->at - $warm : 0;
        $end = $case->timeline->endOrAsOf()->epoch;

        return new self(
            $estimate,
            $least,
            $greatest + $unread + self::tail($previous ?? $first, $before, $end, $hotSpan, $touch),
            $beginsUnread,
            $unread,
            $stays,
            $touch,
        );
    }

    /** Seconds the record leaves open after the last reading. */
    private static function tail(Reading $last, int $side, int $end, int $hotSpan, StageTouch $touch): int
    {
        $from = $last->at;
        if ($end <= $from) {
            return 0;
        }
        if ($side < 0) {
            return match (true) {
                $touch->isOnlyKept($from, $end) => 0,
                $touch->isKeptAtFirst($from, $end) => $end - $touch->keptUntil($from, $end),
                default => $end - $from,
            };
        }

        return $side > 0 && $end - $from <= $hotSpan && $touch->isOnlyHot($from, $end) ? 0 : $end - $from;
    }
}
