<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\TimeControl;
use Verjuicer\Core\Measure\Instant;

/**
 * The outcome of a forecast: when its temperature was passed, interpolated between the two readings around it; or that
 * it will never be known.
 */
final readonly class ForecastOutcome
{
    /** @param bool $isOver whether it can come no more: it left the heat, or fell no further */
    private function __construct(public ?Instant $at, public bool $isOver)
    {
    }

    /**
     * @param string $what as `StatedWindow` has it
     * @param float $towards °C
     * @param Instant $since when it was stated
     */
    public static function of(
        Assessment $assessment,
        string $what,
        ?string $track,
        float $towards,
        Instant $since,
    ): self {
        return $what === StatedWindow::DONE
            ? self::done($assessment, $towards, $since)
            : self::fallen($assessment, $track, $towards, $since);
    }

    private static function done(Assessment $assessment, float $towards, Instant $since): self
    {
        $stretch = null;
        foreach ($assessment->cooks as $cook) {
            if (!$cook->window->stretch->from->isAfter($since)) {
                $stretch = $cook->window->stretch;
            }
        }
        if ($stretch === null) {
            return new self(null, true);
        }
        $last = 0;
        $isOpen = false;
        foreach (self::tracks($assessment, $stretch->order, $stretch->endOrder) as $readings) {
            $passed = self::passed($readings, $towards, 1);
            $isOpen = $isOpen || $passed === null;
            $last = max($last, $passed ?? 0);
        }
        $stage = $assessment->timeline->stage();
        $isOff = $stage?->is(Cook::class) !== true || $assessment->timeline->hasEnded();

        return $isOpen || $last === 0 ? new self(null, $isOff) : new self(Instant::ofEpoch($last), true);
    }

    private static function fallen(Assessment $assessment, ?string $track, float $towards, Instant $since): self
    {
        $first = null;
        foreach (self::tracks($assessment, 0, \PHP_INT_MAX) as $of => $readings) {
            if ($track !== null && $of !== $track) {
                continue;
            }
            $before = null;
            $after = [];
            foreach ($readings as $one) {
                if ($one->at <= $since->epoch) {
                    $before = $one;
                } else {
                    $after[] = $one;
                }
            }
            $passed = self::passed($before === null ? $after : [$before, ...$after], $towards, -1);
            $first = $passed === null ? $first : min($first ?? \PHP_INT_MAX, $passed);
        }
        $warmed = false;
        foreach ($assessment->timeline->stages as $stage) {
            $warmed = $warmed
                || ($stage->from->isAfter($since) && $stage->is(Cook::class, Reheat::class, TimeControl::class));
        }

        return $first === null
            ? new self(null, $warmed || $assessment->timeline->hasEnded())
            : new self(Instant::ofEpoch($first), true);
    }

    /** @return array<string, list<TrackReading>> */
    private static function tracks(Assessment $assessment, int $from, int $to): array
    {
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $tracks = [];
        foreach (Outline::of($assessment->timeline) as $reading) {
            if ($reading->order >= $from && $reading->order < $to && !isset($suspect[$reading->id])) {
                $tracks[$reading->track][] = $reading;
            }
        }

        return $tracks;
    }

    /**
     * @param list<TrackReading> $readings
     * @param int $sign 1 on the way up, -1 on the way down
     *
     * @return int|null seconds since 1970; null where no two readings show it
     */
    private static function passed(array $readings, float $towards, int $sign): ?int
    {
        $before = null;
        foreach ($readings as $one) {
            $level = $one->level / 90;
            if ($sign * ($level - $towards) >= 0 && $before !== null && $sign * ($before[1] - $towards) < 0) {
                $share = ($towards - $before[1]) / ($level - $before[1]);

                return (int) ($before[0] + $share * ($one->at - $before[0]));
            }
            $before = [$one->at, $level];
        }

        return null;
    }
}
