<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Event\Kinds\Unwrap;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/**
 * How a cook that is on the heat is likely to go on: a stall, and when the slowest piece may be done as the kitchen
 * likes it. A forecast.
 */
final readonly class CookOutlook
{
    /**
     * @param list<string> $unestimated the tracks of which nothing can be said yet: any of them may be the slowest
     * @param array<int, Temperature> $targets what single pieces are to be done at, where somebody said so
     * @param list<TrackOutlook> $tracks each place that was read
     */
    private function __construct(
        public ?Stall $stall,
        public ?Window $window,
        public Temperature $target,
        public bool $isReached,
        public bool $isWrapped,
        public ?Instant $readyBy,
        public array $unestimated,
        public array $targets,
        public array $tracks,
    ) {
    }

    /**
     * @param Temperature|null $target from which on the kitchen likes it
     *
     * @return self|null null off the heat, or where nobody said how it is liked
     */
    public static function of(Assessment $assessment, ?Temperature $target): ?self
    {
        $cook = $assessment->timeline->stage();
        [$target, $targets] = self::targets($assessment, $target);
        if ($target === null || $cook?->is(Cook::class) !== true) {
            return null;
        }
        $window = $assessment->cooks[\count($assessment->cooks) - 1]->window ?? null;
        $from = $window->stretch->order ?? $cook->order;
        $pit = self::pitTemperature($assessment, $from);
        $isWrapped = self::isWrapped($assessment, $from);
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $tracks = [];
        foreach ($assessment->timeline->readings as $reading) {
            if ($reading->order >= $from && !isset($suspect[$reading->id])) {
                $tracks[$reading->track][] = Point::of($reading->at, $reading->temp);
            }
        }
        $stall = $earliest = $latest = null;
        $isReached = $tracks !== [];
        $unestimated = $ofTracks = [];
        foreach ($tracks as $track => $points) {
            $stall = self::longer($stall, Stall::in($points));
            $wanted = $targets[(int) $track] ?? $target;
            $goal = Point::celsius($wanted);
            if ($points[\count($points) - 1]->celsius >= $goal) {
                $ofTracks[] = new TrackOutlook($track, $wanted, true, null);

                continue;
            }
            $isReached = false;
            $forecast = $pit === null ? null : DonenessForecast::of($points, $goal, Point::celsius($pit), $isWrapped);
            $ofTracks[] = new TrackOutlook($track, $wanted, false, $forecast);
            if ($forecast === null) {
                $unestimated[] = $track;
            } else {
                $earliest = max($earliest ?? 0, $forecast->earliest->epoch);
                $latest = max($latest ?? 0, $forecast->latest->epoch);
            }
        }

        return new self(
            $stall,
            $earliest === null || $latest === null
                ? null
                : new Window(Instant::ofEpoch($earliest), Instant::ofEpoch($latest)),
            $target,
            $isReached,
            $isWrapped,
            self::readyBy($assessment),
            $unestimated,
            $targets,
            $ofTracks,
        );
    }

    /** When all of it is likely to be done; null while any piece of it has no estimate. */
    public function whole(): ?Window
    {
        return $this->unestimated === [] ? $this->window : null;
    }

    /** Whether it will miss what it is wanted for. */
    public function lateness(): ?Lateness
    {
        return $this->readyBy === null || $this->window === null
            ? null
            : Lateness::of(new Crossing($this->window->earliest, $this->window->latest), $this->readyBy);
    }

    /**
     * @return array{Temperature|null, array<int, Temperature>} what all of it, and what single pieces are to be done
     *     at, as it was said last
     */
    private static function targets(Assessment $assessment, ?Temperature $usual): array
    {
        $targets = [];
        foreach ($assessment->timeline->events as $event) {
            $note = $event->detail;
            if ($note instanceof Note && $note->step === NoteStep::Target && $note->temp !== null) {
                if ($note->piece === null) {
                    [$usual, $targets] = [$note->temp, []];
                } else {
                    $targets[$note->piece] = $note->temp;
                }
            }
        }

        return [$usual ?? (array_values($targets)[0] ?? null), $targets];
    }

    private static function longer(?Stall $one, ?Stall $other): ?Stall
    {
        return $one === null
            || ($other !== null && $other->to->epoch - $other->from->epoch > $one->to->epoch - $one->from->epoch)
            ? $other
            : $one;
    }

    /** The last reading of the pit, or what it was set to last. */
    private static function pitTemperature(Assessment $assessment, int $from): ?Temperature
    {
        $set = $read = null;
        foreach ($assessment->timeline->events as $order => $event) {
            $detail = $order < $from ? null : $event->detail;
            if ($detail instanceof PitReading) {
                $read = $detail->temp;
            } elseif ($detail instanceof PitSet || $detail instanceof Cook) {
                $set = $detail->set;
                $read = null;
            }
        }

        return $read ?? $set;
    }

    private static function isWrapped(Assessment $assessment, int $from): bool
    {
        $isWrapped = false;
        foreach ($assessment->timeline->events as $order => $event) {
            if ($order >= $from && $event->is(Wrap::class, Unwrap::class)) {
                $isWrapped = $event->is(Wrap::class);
            }
        }

        return $isWrapped;
    }

    /** What it is wanted for, as it was last written down. */
    public static function readyBy(Assessment $assessment): ?Instant
    {
        $readyBy = null;
        foreach ($assessment->timeline->events as $event) {
            $readyBy = $event->detail instanceof Note ? $event->detail->readyBy ?? $readyBy : $readyBy;
        }

        return $readyBy;
    }
}
