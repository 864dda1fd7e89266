<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * How food off the heat is likely to fall: when it may pass the hot limit, and each gate of its cooling against the
 * time it has. A forecast.
 */
final readonly class FallOutlook
{
    /** °C: how far the air may be from what somebody noted. */
    private const GIVE = 1.5;

    /**
     * @param Fall $fall the one that is drawn
     * @param string $track whose it is
     * @param Crossing|null $hot of the hot limit by the coolest piece, while all are above it
     * @param list<FallGate> $gates still to pass, each by the piece that passes it last
     * @param Instant|null $readBy before which to read it, so that no crossing can hide
     * @param non-empty-array<string, Fall> $falls of each place, by track
     */
    private function __construct(
        public Fall $fall,
        public string $track,
        public Holding $holding,
        public ?Crossing $hot,
        public array $gates,
        public ?Instant $readBy,
        public array $falls,
    ) {
    }

    /** @return self|null null on the heat, in the cold, out by the clock, or where nothing can be said */
    public static function of(Assessment $assessment, ?Size $size): ?self
    {
        $stage = $assessment->timeline->stage();
        $surroundings = $stage === null ? null : self::surroundings($stage);
        if ($stage === null || $surroundings === null) {
            return null;
        }
        $detail = $stage->event->detail;
        $size = $detail instanceof Cool && $detail->depthMm !== null ? Size::ofLayer($detail->depthMm) : $size;
        $falls = [];
        foreach (self::tracks($assessment, $stage) as $track => $points) {
            $fall = Fall::of($points, $surroundings, $size);
            if ($fall !== null) {
                $falls[$track] = $fall;
            }
        }

        return $falls === [] ? null : self::judged($assessment, $falls, $surroundings->holding);
    }

    /** How it falls where it is; null where it does not fall, or nobody can say: a carrier may be heated or not. */
    private static function surroundings(Stage $stage): ?Surroundings
    {
        $detail = $stage->event->detail;
        $holding = match (true) {
            $detail instanceof HotHold => self::holding($detail->holding, $detail->place),
            $detail instanceof ColdHold => self::holding($detail->holding, $detail->place) ?? Holding::WalkIn,
            $detail instanceof Cool => self::holding($detail->holding, $detail->method) ?? Holding::WalkIn,
            $detail instanceof Rest => self::holding($detail->holding, $detail->method) ?? Holding::Counter,
            $detail instanceof Prep => Holding::Counter,
            default => null,
        };
        $surroundings = $holding === null ? null : Surroundings::of($holding);
        $around = $detail instanceof Cool || $detail instanceof Rest ? $detail->around : null;

        return $around === null ? $surroundings : $surroundings?->around(Point::celsius($around), self::GIVE);
    }

    /** The place that was chosen, or what its words name and nothing else. */
    private static function holding(?Holding $chosen, ?string $words): ?Holding
    {
        return $chosen ?? ($words === null ? null : Holding::named($words));
    }

    /** @param non-empty-array<string, Fall> $falls by track */
    private static function judged(Assessment $assessment, array $falls, Holding $holding): ?self
    {
        $unit = $assessment->record->site->unit;
        $hotLimit = Point::celsius($assessment->rules->limits()->hot->threshold->printedIn($unit));
        [$hot, $hotTrack] = self::firstUnder($falls, $hotLimit);
        $gates = [];
        foreach ($assessment->countdowns as $countdown) {
            $limit = $countdown->towards;
            if (
                $countdown->kind !== CountdownKind::Limit
                || !str_starts_with($countdown->rule, 'cool.')
                || $limit === null
            ) {
                continue;
            }
            foreach (
                $countdown->track === null
    ? $falls
    : array_intersect_key($falls, [$countdown->track => true]) as $track => $fall
            ) {
                $crossing = $fall->crossing(Point::celsius($limit->printedIn($unit)));
                $gate = new FallGate($countdown->rule, $track, $limit, $countdown->deadline, $crossing);
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

        return new self($falls[$drawn], $drawn, $holding, $hot, $gates, $readBy, $falls);
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
     * The course as the picture draws it, and beyond what it shows nothing: pairs of the coldest and the warmest.
     *
     * @return list<array{Instant, Temperature, Temperature}>
     */
    public function fan(Instant $until, TemperatureUnit $unit): array
    {
        $fan = [];
        $steps = 24;
        $length = max(0, $until->epoch - $this->fall->from->epoch);
        for ($step = 0; $step <= $steps; ++$step) {
            $at = Instant::ofEpoch($this->fall->from->epoch + intdiv($length * $step, $steps));
            [$cold, $warm] = $this->fall->at($at);
            $fan[] = [$at, self::temperature($cold, $unit), self::temperature($warm, $unit)];
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
        foreach ($assessment->timeline->readings as $reading) {
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

        // A track that nobody read since says nothing of how it falls.
        foreach ($tracks as $track => $points) {
            $tracks[$track] = isset($lastHot[$track]) ? [$lastHot[$track], ...$points] : $points;
        }

        return $tracks;
    }
}
