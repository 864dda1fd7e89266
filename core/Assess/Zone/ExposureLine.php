<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\DangerZoneRules;

/** One line through readings, as far as it goes by now: it is gone on with from where it stands. */
final readonly class ExposureLine
{
    /** A second in the unit the estimate is kept in. */
    public const SECOND = 1_000_000_000;

    /**
     * @param int $estimate nanoseconds, rounded at each crossing
     * @param int $least seconds
     * @param int $greatest seconds, without the time after the last reading
     * @param int $stays how many stretches of it are in the zone; none adjoins the next
     * @param int $since nanoseconds since 1970: from when on the last of them is not in $byStage yet
     * @param int $until nanoseconds since 1970: where the last of them ends
     * @param array<string, int> $byStage nanoseconds of the estimate by kind of stage, in the order of time
     * @param int $firstSide where it begins: −1 cold, 0 in the zone, 1 hot
     * @param int $firstAt seconds since 1970
     * @param Temperature $last the reading it ends at, $lastAt when that was, $lastSide where it lies
     */
    private function __construct(
        public int $estimate,
        public int $least,
        public int $greatest,
        public int $stays,
        private int $since,
        private int $until,
        private array $byStage,
        public int $firstSide,
        public int $firstAt,
        private Temperature $last,
        public int $lastAt,
        public int $lastSide,
    ) {
    }

    /**
     * Goes on through readings.
     *
     * @param self|null $line null where it begins with the first of them
     * @param non-empty-list<Trace> $parts of them, in order; none is empty
     */
    public static function through(?self $line, array $parts, CaseFile $case, StageTouch $touch): self
    {
        $hotSpan = $case->rule(DangerZoneRules::class)->hotSpan->seconds;
        $side = new ZoneSide($case->limits->cold->threshold, $case->limits->hot->threshold);
        $estimate = $line->estimate ?? 0;
        $least = $line->least ?? 0;
        $greatest = $line->greatest ?? 0;
        $stays = $line->stays ?? 0;
        $since = $line->since ?? 0;
        $until = $line->until ?? -1;
        $byStage = $line->byStage ?? [];
        $last = $line?->last;
        $from = $line->lastAt ?? 0;
        $before = $line->lastSide ?? 0;
        $firstSide = $line?->firstSide;
        $unit = null;
        $cold = $hot = 0;
        $alone = null;
        $inZone = 0;
        $after = $before;
        foreach ($parts as $readings) {
            foreach ($readings->temps as $index => $temp) {
                $to = $readings->ats[$index];
                if ($temp !== $last || $unit === null) {
                    if ($temp->unit !== $unit) {
                        $unit = $temp->unit;
                        [$cold, $hot] = $side->levels($unit);
                    }
                    // Where it lies, by the limits in its own unit: −1 cold, 0 in the zone, 1 hot.
                    $level = $temp->ninetieths;
                    $after = $level <= $cold ? -1 : ($level >= $hot ? 1 : 0);
                    $firstSide ??= $after;
                }
                if ($before === 0 && $after === 0 && $to > $from && $last?->unit === $unit) {
                    // All of it is in the zone, regardless of stages.
                    $inZone += $to - $from;
                    if (self::SECOND * $from !== $until) {
                        $touch->share($since, $until, $byStage);
                        ++$stays;
                        $since = self::SECOND * $from;
                    }
                    $until = self::SECOND * $to;
                } elseif ($before === $after && $to > $from && $last?->unit === $unit) {
                    // None of it is: only the stages say whether it may have been.
                    if ($alone === null || $from <= $alone->from || $to > $alone->to) {
                        $alone = $touch->alone($from, $to);
                    }
                    $isKept = $before < 0 && ($alone === null ? $touch->isOnlyKept($from, $to) : $alone->isKept);
                    $isHot = $before > 0
                        && $to - $from <= $hotSpan
                        && ($alone === null ? $touch->isOnlyHot($from, $to) : $alone->isHot);
                    $isKeptAtFirst = $before < 0 && $alone === null && $touch->isKeptAtFirst($from, $to);
                    if (!$isKept && !$isHot) {
                        $greatest += $to - ($isKeptAtFirst ? $touch->keptUntil($from, $to) : $from);
                    }
                } elseif ($last !== null && $to > $from) {
                    $start = $before < 0 && $touch->isKeptAtFirst($from, $to) ? $touch->keptUntil($from, $to) : $from;
                    $isHot = $before > 0 && $after > 0 && $to - $from <= $hotSpan && $touch->isOnlyHot($from, $to);
                    $isCold = $before < 0 && $after < 0 && $touch->isOnlyKept($from, $to);
                    if (!$isHot && !$isCold) {
                        $greatest += $to - $start;
                    }
                    if ($before === 0 && $after === 0) {
                        $least += $to - $start;
                    }
                    $stay = $start === $to ? null : $side->stay($last, $before, $start, $temp, $after, $to);
                    if ($stay !== null) {
                        $estimate += $stay[1] - $stay[0];
                        if ($stay[0] !== $until) {
                            $touch->share($since, $until, $byStage);
                            ++$stays;
                            $since = $stay[0];
                        }
                        $until = $stay[1];
                    }
                }
                $last = $temp;
                $from = $to;
                $before = $after;
            }
        }
        \assert($last !== null && $firstSide !== null, 'there is a reading');

        return new self(
            $estimate + self::SECOND * $inZone,
            $least + $inZone,
            $greatest + $inZone,
            $stays,
            $since,
            $until,
            $byStage,
            $firstSide,
            $line->firstAt ?? $parts[0]->ats[0],
            $last,
            $from,
            $before,
        );
    }

    /** @return array<string, int> nanoseconds of the estimate by kind of stage, in the order of time */
    public function byStage(StageTouch $touch): array
    {
        $byStage = $this->byStage;
        $touch->share($this->since, $this->until, $byStage);

        return $byStage;
    }

    /** @return list<mixed> its parts, in the order of the constructor */
    public function toData(): array
    {
        return [
            $this->estimate,
            $this->least,
            $this->greatest,
            $this->stays,
            $this->since,
            $this->until,
            (object) $this->byStage,
            $this->firstSide,
            $this->firstAt,
            $this->last->tenths,
            $this->last->unit->value,
            $this->lastAt,
            $this->lastSide,
        ];
    }

    /** @param array{int, int, int, int, int, int, array<string, int>, int, int, int, string, int, int} $data */
    public static function ofData(array $data): self
    {
        [$estimate, $least, $greatest, $stays, $since, $until, $byStage, $side, $at, $tenths, $unit, $end, $endSide] =
            $data;
        $last = Temperature::ofTenths($tenths, TemperatureUnit::from($unit));

        return new self(
            $estimate,
            $least,
            $greatest,
            $stays,
            $since,
            $until,
            $byStage,
            $side,
            $at,
            $last,
            $end,
            $endSide,
        );
    }
}
