<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Belief\Place;
use Verjuicer\Core\Forecast\Belief\Surroundings;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\ReheatingRules;

/**
 * How food off the heat is likely to fall: when it may pass the hot limit, and each gate of its cooling against the
 * time it has. A forecast.
 */
final readonly class FallOutlook
{
    private const CARRIED_ON = 12.0; // °C under the hot limit to which a rest is drawn
    private const FAN_STEPS = 24;

    /**
     * @param Fall $fall the one that is drawn
     * @param string $track whose it is
     * @param Crossing|null $hot of the hot limit by the coolest piece, while all are above it
     * @param list<CoolingLimitOutlook> $gates still to pass, each by the piece that passes it last
     * @param Instant|null $readBy before which to read it, so that no crossing can hide
     * @param non-empty-array<string, Fall> $falls of each place, by track
     * @param NarrowingInput $asks the input that would narrow it most
     */
    private function __construct(
        public Fall $fall,
        public string $track,
        public Holding $holding,
        public ?Crossing $hot,
        public array $gates,
        public ?Instant $readBy,
        public array $falls,
        public NarrowingInput $asks,
    ) {
    }

    /**
     * @param LearnedParameters|null $learned of own cooks
     *
     * @return self|null null on the heat, in the cold, out by the clock, or where nothing can be said
     */
    public static function of(Assessment $assessment, ?LearnedParameters $learned = null): ?self
    {
        $stage = $assessment->timeline->stage();
        $holding = Place::of($stage?->event->detail)?->holding;
        if ($stage === null || $holding === null || Surroundings::of($holding) === null) {
            return null;
        }
        $unit = $assessment->record->site->unit;
        $limits = $assessment->rules->limits();
        $lowest = Point::celsius($limits->hot->threshold->printedIn($unit)) - self::CARRIED_ON;
        foreach (self::gatesOf($assessment) as $countdown) {
            $lowest = min($lowest, Point::celsius(($countdown->towards ?? $limits->cold->threshold)->printedIn($unit)));
        }
        $now = $assessment->timeline->asOf;
        $falls = [];
        $tracks = self::tracks($assessment, $stage);
        $beliefs = Beliefs::of($assessment, \count($tracks), [], $learned);
        foreach ($tracks as $track => $points) {
            $last = $points[\count($points) - 1];
            $belief = $beliefs->ofTrack((string) $track);
            if ($belief !== null) {
                $isRead = $last->at >= $stage->from->epoch;
                $falls[$track] = new Fall($belief, $now, $last->celsius, $isRead, min($lowest, $last->celsius - 1.0));
            }
        }

        $isCovered = Place::of($stage->event->detail)->isCovered ?? false;

        return $falls === [] ? null : self::judged($assessment, $falls, $holding, $isCovered);
    }

    /** @return list<Countdown> the gates of a cooling that are still to be passed */
    private static function gatesOf(Assessment $assessment): array
    {
        return array_values(
            array_filter(
                $assessment->countdowns,
                static fn (Countdown $one): bool => $one->kind === CountdownKind::Limit
                    && str_starts_with($one->rule, 'cool.')
                    && $one->towards !== null,
            ),
        );
    }

    /** @param non-empty-array<string, Fall> $falls by track */
    private static function judged(Assessment $assessment, array $falls, Holding $holding, bool $isCovered): ?self
    {
        $unit = $assessment->record->site->unit;
        $hotLimit = Point::celsius($assessment->rules->limits()->hot->threshold->printedIn($unit));
        [$hot, $hotTrack] = self::firstUnder($falls, $hotLimit);
        $gates = [];
        foreach (self::gatesOf($assessment) as $countdown) {
            $limit = $countdown->towards;
            \assert($limit !== null);
            $ofTrack = $countdown->track === null ? $falls : array_intersect_key($falls, [$countdown->track => true]);
            foreach ($ofTrack as $track => $fall) {
                $celsius = Point::celsius($limit->printedIn($unit));
                // Not shown below the hot-holding limit yet: a further hot reading restarts the time.
                $hotAt = $countdown->track === null ? $countdown->earliestStart : null;
                $gate = new CoolingLimitOutlook(
                    $countdown->rule,
                    (string) $track,
                    $limit,
                    $countdown->deadline,
                    $fall->crossing($celsius),
                    self::late($fall, $hotAt, $countdown->deadline, $celsius, $hotLimit),
                    $hotAt,
                );
                if (!isset($gates[$countdown->rule]) || $gate->isLaterThan($gates[$countdown->rule])) {
                    $gates[$countdown->rule] = $gate;
                }
            }
        }
        $gates = array_values($gates);
        if ($hot === null && $gates === []) {
            return null;
        }
        $drawn = $hotTrack ?? $gates[0]->track;
        $readBy = $hot->earliest ?? $gates[0]->readBy();

        $towards = $gates === [] ? $hotLimit : Point::celsius($gates[0]->towards->printedIn($unit));
        $asks = $falls[$drawn]->asks($towards, $isCovered);

        return new self($falls[$drawn], $drawn, $holding, $hot, $gates, $readBy, $falls, $asks);
    }

    /**
     * 0 to 1: the chance that a limit is met too late. After the deadline the chance is 1, even if a later reading
     * might clear it.
     */
    private static function late(Fall $fall, ?Instant $hotAt, Instant $deadline, float $celsius, float $hot): float
    {
        return $hotAt === null || $fall->from->isAfter($deadline)
            ? $fall->late($celsius, $deadline)
            : $fall->lateFrom($hot, Span::between($hotAt, $deadline), $celsius, $deadline);
    }

    /** Whether a limit may be missed while a remedy is still possible. */
    public function isLateAhead(): bool
    {
        foreach ($this->gates as $gate) {
            if ($gate->late !== null && !$this->fall->from->isAfter($gate->deadline)) {
                return true;
            }
        }

        return false;
    }

    /**
     * The forecast of the open limits after each remedy taken now, the most promising first; by the piece that passes
     * them last.
     *
     * @return list<Remedy>
     */
    public function remedies(Assessment $assessment): array
    {
        $unit = $assessment->record->site->unit;
        $hotLimit = Point::celsius($assessment->rules->limits()->hot->threshold->printedIn($unit));
        $ahead = array_values(
            array_filter(
                $this->gates,
                fn (CoolingLimitOutlook $gate): bool => !$this->fall->from->isAfter($gate->deadline),
            ),
        );
        $slowest = $ahead[0] ?? null;
        if ($slowest === null) {
            return [];
        }
        $lowest = \INF;
        foreach ($ahead as $gate) {
            $slowest = $gate->isLaterThan($slowest) ? $gate : $slowest;
            $lowest = min($lowest, Point::celsius($gate->towards->printedIn($unit)));
        }
        $remedies = [];
        foreach (RemedyKind::cases() as $kind) {
            if ($kind->place() === null || $kind->place() === $this->holding) {
                continue;
            }
            $fall = $this->falls[$slowest->track]->instead($kind, $lowest);
            $late = 0.0;
            foreach ($ahead as $gate) {
                $celsius = Point::celsius($gate->towards->printedIn($unit));
                $late = max($late, self::late($fall, $gate->hotAt, $gate->deadline, $celsius, $hotLimit));
            }
            $remedies[] = new Remedy($kind, $late);
        }
        // Reheating restarts the time once, and only while the first limit can still be met.
        if (\in_array('cool.stage1', array_column($ahead, 'rule'), true) && !self::wasReheated($assessment)) {
            $late = self::throughTheHeat($assessment, $this->falls[$slowest->track]);
            $remedies[] = new Remedy(RemedyKind::BackOnHeat, $late);
        }
        usort($remedies, static fn (Remedy $one, Remedy $other): int => $one->late <=> $other->late);

        return $remedies;
    }

    /**
     * 0 to 1: the chance that it is not reheated in time, or passes a gate too late all the same, thin in open pans.
     * Its time counts from the earliest moment at which it may be under the hot limit again.
     */
    private static function throughTheHeat(Assessment $assessment, Fall $fall): float
    {
        $rules = $assessment->rules;
        $record = $assessment->record;
        $unit = $record->site->unit;
        $celsius = static fn (Threshold $limit): float => Point::celsius($limit->printedIn($unit));
        $reheating = $rules->get(ReheatingRules::class);
        $cooling = $rules->get(CoolingRules::class);
        $target = $celsius($reheating->own->threshold);
        $set = PitSetting::last($assessment);
        $heated = $fall->heatedLate(
            $set === null ? null : Point::celsius($set),
            $target,
            $reheating->within->span->seconds,
        );
        $again = Beliefs::ahead(
            $record->product,
            Holding::ShallowPans,
            $target,
            null,
            RemedyKind::THIN,
            false,
            $fall->from->epoch,
            $record->site->elevationM,
        );
        $cold = $celsius($rules->limits()->cold->threshold);
        $fall = new Fall($again, $fall->from, $target, true, $cold);
        $from = $fall->crossing($celsius($rules->limits()->hot->threshold))->earliest ?? $fall->from;
        $late = max(
            $fall->late($celsius($cooling->middle->threshold), $from->plus($cooling->stage1->span)),
            $fall->late($cold, $from->plus($cooling->total->span)),
        );

        return 1.0 - (1.0 - $heated) * (1.0 - $late);
    }

    /** Whether it was put back on the heat since it was cooked: that is done once. */
    private static function wasReheated(Assessment $assessment): bool
    {
        $was = false;
        foreach ($assessment->timeline->stages as $stage) {
            $was = $stage->is(Reheat::class) || ($was && !$stage->is(Cook::class));
        }

        return $was;
    }

    /**
     * The coolest piece decides when the batch is under the hot limit; once one is, that is no forecast any more.
     *
     * @param array<string, Fall> $falls by track
     *
     * @return array{Crossing|null, string|null} the crossing and its track
     */
    private static function firstUnder(array $falls, float $hotLimit): array
    {
        $first = $ofTrack = null;
        foreach ($falls as $track => $fall) {
            if ($fall->celsius <= $hotLimit) {
                return [null, null];
            }
            $crossing = $fall->crossing($hotLimit);
            if ($crossing !== null && ($first === null || $first->earliest->isAfter($crossing->earliest))) {
                [$first, $ofTrack] = [$crossing, $track];
            }
        }

        return [$first, $ofTrack];
    }

    /**
     * The trajectory as drawn, no further than the picture: pairs of the coldest and the warmest.
     *
     * @return list<array{Instant, Temperature, Temperature}>
     */
    public function fan(Instant $until, TemperatureUnit $unit): array
    {
        $moments = [];
        $from = $this->fall->from->epoch;
        $length = max(0, $until->epoch - $from);
        for ($step = 0; $step <= self::FAN_STEPS; ++$step) {
            $moments[] = Instant::ofEpoch($from + intdiv($length * $step, self::FAN_STEPS));
        }
        $fan = [];
        foreach ($this->fall->at($moments) as $n => [$cold, $warm]) {
            $fan[] = [$moments[$n], self::temperature($cold, $unit), self::temperature($warm, $unit)];
        }

        return $fan;
    }

    private static function temperature(float $celsius, TemperatureUnit $unit): Temperature
    {
        return Temperature::ofTenths(
            (int) round(10 * ($unit === TemperatureUnit::Celsius ? $celsius : $celsius * 1.8 + 32)),
            $unit,
        );
    }

    /** @return array<string, list<Point>> the believed readings of each track from the last that was on the heat */
    private static function tracks(Assessment $assessment, Stage $stage): array
    {
        $since = 0;
        foreach ($assessment->timeline->stages as $before) {
            if ($before->is(Cook::class, Reheat::class, HotHold::class) && $before->index < $stage->index) {
                $since = $before->endOrder;
            }
        }
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $tracks = $lastHot = [];
        foreach (Outline::of($assessment->timeline) as $reading) {
            if (isset($suspect[$reading->id])) {
                continue;
            }
            if ($reading->order < $since) {
                $lastHot[$reading->track] = Point::of($reading->at, $reading->temp);
            } else {
                $tracks[$reading->track][] = Point::of($reading->at, $reading->temp);
            }
        }
        if ($tracks === []) {
            return array_map(static fn (Point $point): array => [$point], $lastHot);
        }

        // A track without readings since shows no fall.
        foreach ($tracks as $track => $points) {
            $tracks[$track] = isset($lastHot[$track]) ? [$lastHot[$track], ...$points] : $points;
        }

        return $tracks;
    }
}
