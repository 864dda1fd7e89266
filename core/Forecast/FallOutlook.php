<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** How food off the heat is likely to fall: when it may pass the hot limit, and each gate of its cooling against the time it has. A forecast. */
final readonly class FallOutlook
{
    /**
     * @param Fall                                                                                                            $fall   the one that is drawn
     * @param string                                                                                                          $track  whose it is
     * @param Crossing|null                                                                                                   $hot    of the hot limit by the coolest piece, while all are above it
     * @param list<array{rule: string, track: string, deadline: Instant, crossing: Crossing|null, late: 'sure'|'maybe'|null}> $gates  still to pass, each by the piece that passes it last
     * @param Instant|null                                                                                                    $readBy before which to read it, so that no crossing can hide
     */
    private function __construct(public Fall $fall, public string $track, public Cooling $method, public ?Crossing $hot, public array $gates, public ?Instant $readBy)
    {
    }

    /** @return self|null null on the heat, in the cold, out by the clock, or where nothing can be said */
    public static function of(Assessment $assessment, ?Size $size): ?self
    {
        $stage = $assessment->timeline->stage();
        $method = $stage === null ? null : self::method($stage);
        if ($stage === null || $method === null) {
            return null;
        }
        $depth = (new Extras($stage->event))->whole('depth_mm');
        $size = $depth === null || $depth < 1 ? $size : Size::ofLayer($depth);
        $falls = [];
        foreach (self::tracks($assessment, $stage) as $track => $points) {
            $fall = Fall::of($points, $method, $size, self::surroundings($stage));
            if ($fall !== null) {
                $falls[$track] = $fall;
            }
        }

        return $falls === [] ? null : self::judged($assessment, $falls, $method);
    }

    /** How it falls where it is; null where it does not fall, or nobody can say: a carrier may be heated or not. */
    private static function method(Stage $stage): ?Cooling
    {
        $named = Cooling::fromWords(self::words($stage));

        return match ($stage->type()) {
            EventType::HotHold => $named,
            EventType::ColdHold, EventType::Cool => $named ?? Cooling::WalkIn,
            EventType::Rest, EventType::Prep => $named ?? Cooling::Counter,
            default => null,
        };
    }

    /** @param non-empty-array<string, Fall> $falls by track */
    private static function judged(Assessment $assessment, array $falls, Cooling $method): ?self
    {
        $unit = $assessment->record->site->unit;
        $hotLimit = Point::celsius($assessment->rules->hot->threshold->printedIn($unit));
        [$hot, $hotTrack] = self::firstUnder($falls, $hotLimit);
        $gates = [];
        foreach ($assessment->countdowns as $countdown) {
            $limit = $countdown->towards;
            if ($countdown->kind !== CountdownKind::Limit || !str_starts_with($countdown->rule, 'cool.') || $limit === null) {
                continue;
            }
            foreach ($countdown->track === null ? $falls : array_intersect_key($falls, [$countdown->track => true]) as $track => $fall) {
                $crossing = $fall->crossing(Point::celsius($limit->printedIn($unit)));
                $gate = ['rule' => $countdown->rule, 'track' => $track, 'deadline' => $countdown->deadline, 'crossing' => $crossing, 'late' => match (true) {
                    $crossing === null, $crossing->earliest->isAfter($countdown->deadline) => 'sure',
                    $crossing->latest === null, $crossing->latest->isAfter($countdown->deadline) => 'maybe',
                    default => null,
                }];
                if (!isset($gates[$countdown->rule]) || self::lateness($gate) > self::lateness($gates[$countdown->rule])) {
                    $gates[$countdown->rule] = $gate;
                }
            }
        }
        $gates = array_values($gates);
        if ($hot === null && $gates === []) {
            return null;
        }
        $readBy = $hot?->earliest;
        foreach ($gates as $gate) {
            // A reading before the gate shuts shows it passed, if it is passed by then.
            $readBy ??= $gate['crossing']?->latest !== null && !$gate['crossing']->latest->isAfter($gate['deadline']) ? $gate['crossing']->latest : $gate['deadline'];
        }
        $drawn = $hotTrack ?? $gates[0]['track'];

        return new self($falls[$drawn], $drawn, $method, $hot, $gates, $readBy);
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
     * How late a gate is, to be compared with another of its rule.
     *
     * @param array{rule: string, track: string, deadline: Instant, crossing: Crossing|null, late: 'sure'|'maybe'|null} $gate
     *
     * @return array{int, int}
     */
    private static function lateness(array $gate): array
    {
        return [['' => 0, 'maybe' => 1, 'sure' => 2][$gate['late'] ?? ''], ($gate['crossing']->latest ?? $gate['crossing']?->earliest)->epoch ?? \PHP_INT_MAX];
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
        return Temperature::ofTenths((int) round(10 * ($unit === TemperatureUnit::Celsius ? $celsius : $celsius * 1.8 + 32)), $unit);
    }

    /** @return array<string, list<Point>> the believed readings of each track from the last that was on the heat */
    private static function tracks(Assessment $assessment, Stage $stage): array
    {
        $since = 0;
        foreach ($assessment->timeline->stages as $before) {
            if (\in_array($before->type(), [EventType::Cook, EventType::Reheat, EventType::HotHold], true) && $before->index < $stage->index) {
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

    private static function words(Stage $stage): string
    {
        $detail = $stage->event->detail;

        return match (true) {
            $detail instanceof Detail\ByMethod => $detail->method ?? '',
            $detail instanceof Detail\Held => $detail->place ?? '',
            default => '',
        };
    }

    /** @return array{float, float}|null °C, where the record says how warm it is there */
    private static function surroundings(Stage $stage): ?array
    {
        $given = (new Extras($stage->event))->temperature('around');
        $celsius = $given === null ? null : Point::celsius($given);

        return $celsius === null ? null : [$celsius - 1.5, $celsius + 1.5];
    }
}
