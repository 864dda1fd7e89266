<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Ruleset\DangerZoneRules;

/** The result of a line at the end of the batch, or at the moment of judging. */
final readonly class ClosedExposure
{
    /**
     * @param int $estimate nanoseconds
     * @param int $least seconds
     * @param int $greatest seconds
     * @param int $unread seconds between leaving the cold and the first reading, where it begins unread
     * @param array<string, int> $byStage nanoseconds of the estimate by kind of stage
     */
    private function __construct(
        private int $estimate,
        private int $stays,
        public int $least,
        public int $greatest,
        public bool $beginsUnread,
        public int $unread,
        private array $byStage,
    ) {
    }

    public static function of(ExposureLine $line, CaseFile $case, StageTouch $touch): self
    {
        $warm = $touch->firstWarm();
        $beginsUnread = $line->firstSide >= 0 && $warm !== null && $warm < $line->firstAt;
        $unread = $beginsUnread ? $line->firstAt - $warm : 0;
        $hotSpan = $case->rule(DangerZoneRules::class)->hotSpan->seconds;

        return new self(
            $line->estimate,
            $line->stays,
            $line->least,
            $line->greatest + $unread + self::tail($line, $case->timeline->endOrAsOf()->epoch, $hotSpan, $touch),
            $beginsUnread,
            $unread,
            $line->byStage($touch),
        );
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
        return self::rounded($this->estimate + 2 * $this->stays);
    }

    /**
     * Rounded so that they add up to the estimate: the largest remainders are rounded up.
     *
     * @return array<string, int> seconds of the estimate by kind of stage, in the order of time
     */
    public function byStage(): array
    {
        $seconds = array_map(static fn (int $of): int => intdiv($of, ExposureLine::SECOND), $this->byStage);
        $left = $this->estimateSeconds() - array_sum($seconds);
        $remainders = array_map(static fn (int $of): int => $of % ExposureLine::SECOND, $this->byStage);
        arsort($remainders);
        foreach (\array_slice(array_keys($remainders), 0, max(0, $left)) as $stage) {
            ++$seconds[$stage];
        }

        return array_filter($seconds, static fn (int $of): bool => $of > 0);
    }

    private static function rounded(int $nanoseconds): int
    {
        return intdiv($nanoseconds + (ExposureLine::SECOND >> 1), ExposureLine::SECOND);
    }

    /** Seconds the record leaves open after the last reading. */
    private static function tail(ExposureLine $line, int $end, int $hotSpan, StageTouch $touch): int
    {
        [$from, $side] = [$line->lastAt, $line->lastSide];
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
