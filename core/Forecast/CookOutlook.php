<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Unwrap;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Forecast\Belief\PlannedSteps;
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
     * @param array<int, Temperature> $targets targets of single pieces, if recorded
     * @param list<TrackOutlook> $tracks each place that was read
     * @param Crossing|null $stallEnds where it stalls
     * @param CarryOver|null $carriedOver the slowest piece, after a pull at its target
     */
    private function __construct(
        public ?Stall $stall,
        public ?Crossing $window,
        public Temperature $target,
        public bool $isReached,
        public bool $isWrapped,
        public ?Instant $readyBy,
        public array $unestimated,
        public array $targets,
        public array $tracks,
        public ?Crossing $stallEnds,
        public ?CarryOver $carriedOver,
        private ?Odds $odds,
        private bool $isRead,
    ) {
    }

    /**
     * @param Temperature|null $target from which on the kitchen likes it
     * @param list<PlannedSteps> $also steps to try in addition to the record's plan
     * @param LearnedParameters|null $learned of own cooks
     * @param bool $isAsked whether that target was requested, regardless of the record
     *
     * @return self|null null off the heat, or without a target
     */
    public static function of(
        Assessment $assessment,
        ?Temperature $target,
        array $also = [],
        ?LearnedParameters $learned = null,
        bool $isAsked = false,
    ): ?self {
        $cook = $assessment->timeline->stage();
        [$target, $targets] = $isAsked ? [$target, []] : self::targets($assessment, $target);
        if ($target === null || $cook?->is(Cook::class) !== true) {
            return null;
        }
        $window = $assessment->cooks[\count($assessment->cooks) - 1]->window ?? null;
        $from = $window->stretch->order ?? $cook->order;
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $tracks = [];
        foreach (Outline::of($assessment->timeline) as $reading) {
            if ($reading->order >= $from && !isset($suspect[$reading->id])) {
                $tracks[$reading->track][] = Point::of($reading->at, $reading->temp);
            }
        }
        $stall = null;
        $ofTracks = $unestimated = $all = [];
        $last = $lastGoal = null;
        $isReached = $tracks !== [];
        $beliefs = Beliefs::of($assessment, \count($tracks), $also, $learned);
        foreach ($tracks === [] ? [self::first($assessment) => []] : $tracks as $track => $points) {
            $stall = self::longer($stall, Stall::in($points));
            $wanted = $targets[(int) $track] ?? $target;
            $goal = Point::celsius($wanted);
            if ($points !== [] && $points[\count($points) - 1]->celsius >= $goal) {
                $ofTracks[] = new TrackOutlook((string) $track, $wanted, true, null);

                continue;
            }
            $isReached = false;
            $belief = $beliefs->ofTrack((string) $track);
            $odds = $belief?->crossing($goal, true, Belief::WITHIN);
            $crossing = $odds === null ? null : Crossing::of($odds);
            if ($crossing?->likely !== null && ($last === null || $crossing->likely->isAfter($last[1]))) {
                [$last, $lastGoal] = [[$belief, $crossing->likely], $wanted];
            }
            $ofTracks[] = new TrackOutlook((string) $track, $wanted, false, $crossing);
            if ($odds === null || $crossing === null) {
                $unestimated[] = (string) $track;
            } else {
                $all[] = $odds;
            }
        }
        $slowest = Odds::slowest($all);

        return new self(
            $stall,
            $slowest === null ? null : Crossing::of($slowest),
            $target,
            $isReached,
            self::isWrapped($assessment, $from),
            self::readyBy($assessment),
            $unestimated,
            $targets,
            $ofTracks,
            $stall?->isOpen === true && $last !== null
                ? Crossing::of($last[0]->risesAgain(Stall::SLOW, Belief::WITHIN))
                : null,
            $last === null || $lastGoal === null ? null : CarryOver::of($last[0], $lastGoal),
            $slowest,
            $tracks !== [],
        );
    }

    /** When all of it is likely to be done; null while any piece of it has no estimate. */
    public function whole(): ?Crossing
    {
        return $this->unestimated === [] ? $this->window : null;
    }

    /** When the slowest piece is done; null while any piece has no estimate, or where all are done. */
    public function done(): ?Odds
    {
        return $this->unestimated === [] ? $this->odds : null;
    }

    /** 0 to 1: the chance to miss the service time; null without one. */
    public function late(): ?float
    {
        return $this->readyBy === null ? null : $this->odds?->after($this->readyBy->epoch);
    }

    /** 0 to 10: how many times in ten it is not done in time. */
    public function tenths(): int
    {
        return Chance::tenthsOfBad($this->late() ?? 0.0);
    }

    /** Whether any of it was read on the heat; if not, the forecast is of weight and pit alone. */
    public function isRead(): bool
    {
        return $this->isRead;
    }

    /** Whether it will miss its service time. */
    public function lateness(): ?Lateness
    {
        $late = $this->late();

        return $late === null ? null : Lateness::of($late);
    }

    /**
     * @return array{Temperature|null, array<int, Temperature>} targets of the batch and of single pieces: as last
     *     recorded, else as planned, else as usual
     */
    private static function targets(Assessment $assessment, ?Temperature $usual): array
    {
        $targets = PlannedSteps::offAt($assessment->record);
        $usual = $targets[0] ?? $usual;
        unset($targets[0]);
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

    /** The piece that stands for all where none was read. */
    private static function first(Assessment $assessment): string
    {
        return ($assessment->record->product->pieceNumbers[0] ?? 1).'/'.Beliefs::MIDDLE;
    }

    private static function longer(?Stall $one, ?Stall $other): ?Stall
    {
        return $one === null
            || ($other !== null && $other->to->epoch - $other->from->epoch > $one->to->epoch - $one->from->epoch)
            ? $other
            : $one;
    }

    /** Whether every piece is: a wrap of one is none of the others. */
    private static function isWrapped(Assessment $assessment, int $from): bool
    {
        $product = $assessment->record->product;
        $pieces = array_fill_keys($product->pieceNumbers ?? range(1, $product->pieces), false);
        foreach ($assessment->timeline->events as $order => $event) {
            $detail = $event->detail;
            if ($order >= $from && ($detail instanceof Wrap || $detail instanceof Unwrap)) {
                $these = $detail->piece === null ? array_keys($pieces) : [$detail->piece];
                $pieces = array_replace($pieces, array_fill_keys($these, $detail instanceof Wrap));
            }
        }

        return !\in_array(false, $pieces, true);
    }

    /** The service time, as last recorded. */
    public static function readyBy(Assessment $assessment): ?Instant
    {
        $readyBy = null;
        foreach ($assessment->timeline->events as $event) {
            $readyBy = $event->detail instanceof Note ? $event->detail->readyBy ?? $readyBy : $readyBy;
        }

        return $readyBy;
    }
}
