<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\RuleSet;

/**
 * How long the meat was strictly between the cold and the hot limit: a figure, not a verdict.
 *
 * The estimate follows straight lines between successive readings of a track; the batch's is that of the track with the greatest.
 * The least counts only what lies between two readings in the zone. The greatest counts every span the readings leave open:
 * between readings where either is in the zone or they lie on its two sides, from when the meat left the cold to the first reading,
 * and from the last reading to the end.
 */
final readonly class DangerZone
{
    /** @param array<string, int> $byStage seconds of the estimate in each kind of stage */
    private function __construct(public Span $estimate, public Span $least, public Span $greatest, public array $byStage)
    {
    }

    public static function of(CaseFile $case): self
    {
        $widest = null;
        foreach ($case->tracks as $trace) {
            $zone = self::ofTrack($case, $trace);
            if ($widest === null || $zone->estimate->isLongerThan($widest->estimate)
                || ($zone->estimate->seconds === $widest->estimate->seconds && $zone->greatest->isLongerThan($widest->greatest))) {
                $widest = $zone;
            }
        }

        return $widest ?? new self(Span::ofSeconds(0), Span::ofSeconds(0), self::unread($case), []);
    }

    private static function ofTrack(CaseFile $case, Trace $trace): self
    {
        $micros = $least = $greatest = 0;
        $byStage = [];
        $stage = $before = 0;
        $previous = null;
        // Where a stay within the zone that is not yet counted began: successive readings inside are one stay.
        $since = null;
        $cold = $case->rules->cold->threshold;
        $hot = $case->rules->hot->threshold;
        $stay = static function (int $from, int $to, int $at) use ($case, &$micros, &$stage, &$byStage): void {
            $micros += $to - $from;
            while (isset($case->timeline->stages[$stage + 1]) && $case->timeline->stages[$stage]->to->epoch <= $at) {
                ++$stage;
            }
            self::share($case->timeline, $stage, $from, $to, $byStage);
        };
        foreach ($trace->readings as $reading) {
            // On which side of the zone, by the limits in the reading's own unit: −1 cold, 0 inside, 1 hot.
            $after = $cold->compare($reading->temp) <= 0 ? -1 : ($hot->compare($reading->temp) >= 0 ? 1 : 0);
            if ($previous !== null && $after === 0 && $before === 0) {
                $since ??= $previous->at;
            } elseif ($previous !== null && $after !== $before) {
                if ($since !== null) {
                    $least += $previous->at - $since;
                    $stay(1_000_000 * $since, 1_000_000 * $previous->at, $since);
                    $since = null;
                }
                if ($reading->at > $previous->at) {
                    $greatest += $reading->at - $previous->at;
                    $stay(...[...self::insideOf($case->rules, $previous, $reading), $previous->at]);
                }
            }
            $previous = $reading;
            $before = $after;
        }
        if ($since !== null && $previous !== null) {
            $least += $previous->at - $since;
            $stay(1_000_000 * $since, 1_000_000 * $previous->at, $since);
        }
        $greatest += $least;
        $first = $trace->first();
        $leftTheCold = self::leftTheCold($case->timeline);
        if ($first !== null && $leftTheCold !== null) {
            $greatest += max(0, $first->at - $leftTheCold);
        }
        if ($previous !== null) {
            $greatest += max(0, $case->timeline->endOrAsOf()->epoch - $previous->at);
        }

        return new self(self::rounded($micros), Span::ofSeconds($least), Span::ofSeconds($greatest), array_map(static fn (int $part): int => self::rounded($part)->seconds, $byStage));
    }

    /** Where nothing was read, all the time off the cold is open. */
    private static function unread(CaseFile $case): Span
    {
        $from = self::leftTheCold($case->timeline);

        return Span::ofSeconds($from === null ? 0 : max(0, $case->timeline->endOrAsOf()->epoch - $from));
    }

    /** Seconds: the first stage that is not receiving, cold holding or freezing, which have rules of their own. */
    private static function leftTheCold(Timeline $timeline): ?int
    {
        foreach ($timeline->stages as $stage) {
            if (!\in_array($stage->type(), [EventType::Received, EventType::ColdHold, EventType::Freeze], true)) {
                return $stage->from->epoch;
            }
        }

        return null;
    }

    /** @return array{int, int} microseconds since 1970: the part of the straight line strictly between the limits, of the first reading's unit */
    private static function insideOf(RuleSet $rules, Reading $one, Reading $other): array
    {
        $unit = $one->temp->unit;
        $from = $one->temp->ninetieths();
        $to = $other->temp->ninetieths();
        $start = 1_000_000 * $one->at;
        $end = 1_000_000 * $other->at;
        if ($from === $to) {
            // The same temperature in two units, inside by the figure of one and at the limit by the other's.
            return [$start, $start];
        }
        $crossings = [];
        foreach ($from < $to ? [$rules->cold, $rules->hot] : [$rules->hot, $rules->cold] as $limit) {
            $crossings[] = self::crossing($one->at, $other->at, $from, $to, $limit->threshold->printedIn($unit)->ninetieths());
        }

        return [max($start, min($end, $crossings[0])), max($start, min($end, $crossings[1]))];
    }

    /** Microseconds since 1970 at which the line through both points has the temperature; in integers, in two steps so that none overflows. */
    private static function crossing(int $at, int $atOther, int $from, int $to, int $level): int
    {
        $rise = $to - $from;
        $product = ($level - $from) * ($atOther - $at);
        $whole = intdiv($product, $rise);

        return 1_000_000 * ($at + $whole) + intdiv(1_000_000 * ($product - $whole * $rise), $rise);
    }

    /**
     * Lays microseconds of the estimate on the stages they fall in.
     *
     * @param array<string, int> $byStage
     */
    private static function share(Timeline $timeline, int $stage, int $from, int $to, array &$byStage): void
    {
        for ($index = $stage; $from < $to && isset($timeline->stages[$index]); ++$index) {
            $one = $timeline->stages[$index];
            $start = max($from, 1_000_000 * $one->from->epoch);
            $end = isset($timeline->stages[$index + 1]) ? min($to, 1_000_000 * $one->to->epoch) : $to;
            if ($end > $start) {
                $byStage[$one->type()->value] = ($byStage[$one->type()->value] ?? 0) + $end - $start;
                $from = $end;
            }
        }
    }

    private static function rounded(int $micros): Span
    {
        return Span::ofSeconds(intdiv($micros + 500_000, 1_000_000));
    }
}
