<?php

declare(strict_types=1);

namespace Verjuicer\App\Batch;

use Verjuicer\App\Board\DueNext;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Clock;
use Verjuicer\Core\Assess\ClockKind;
use Verjuicer\Core\Assess\Stage;
use Verjuicer\Core\Forecast\Cooling;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\Fall;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\Size;
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
     * @param Crossing|null                                                                                    $hot    of the hot limit, while it is above it
     * @param list<array{rule: string, deadline: Instant, crossing: Crossing|null, late: 'sure'|'maybe'|null}> $gates  that it has still to pass
     * @param Instant|null                                                                                     $readBy before which to read it, so that no crossing can hide
     */
    private function __construct(public Fall $fall, public string $track, public Cooling $method, public ?Crossing $hot, public array $gates, public ?Instant $readBy)
    {
    }

    /** @return self|null null on the heat, in the cold, or where nothing can be said */
    public static function of(Assessment $assessment, ?Size $size): ?self
    {
        $stage = $assessment->timeline->stage();
        if ($stage === null || !\in_array($stage->type(), [EventType::Rest, EventType::Cool, EventType::ColdHold, EventType::HotHold, EventType::Prep, EventType::TimeControl], true)) {
            return null;
        }
        $words = self::words($stage);
        $method = Cooling::fromWords($words) ?? match ($stage->type()) {
            EventType::HotHold => Cooling::Cabinet,
            EventType::ColdHold, EventType::Cool => Cooling::WalkIn,
            default => Cooling::Counter,
        };
        $depth = (new Extras($stage->event))->whole('depth_mm');
        $size = $depth === null ? $size : Size::ofLayer($depth);
        $slowest = null;
        foreach (self::tracks($assessment, $stage) as $track => $points) {
            $fall = Fall::of($points, $method, $size, self::surroundings($stage));
            if ($fall !== null && ($slowest === null || $fall->celsius > $slowest[0]->celsius)) {
                $slowest = [$fall, $track];
            }
        }

        return $slowest === null ? null : self::judged($assessment, $slowest[0], $slowest[1], $method);
    }

    private static function judged(Assessment $assessment, Fall $fall, string $track, Cooling $method): ?self
    {
        $unit = $assessment->record->site->unit;
        $hotLimit = Point::celsius($assessment->rules->hot->threshold->printedIn($unit));
        $hot = $fall->celsius > $hotLimit ? $fall->crossing($hotLimit) : null;
        $gates = [];
        foreach (self::gateClocks($assessment) as $clock) {
            $limit = DueNext::limit($assessment->rules, $clock->rule);
            if ($limit === null) {
                continue;
            }
            $crossing = $fall->crossing(Point::celsius($limit->printedIn($unit)));
            $gates[] = ['rule' => $clock->rule, 'deadline' => $clock->deadline, 'crossing' => $crossing, 'late' => match (true) {
                $crossing === null, $crossing->earliest->isAfter($clock->deadline) => 'sure',
                $crossing->latest === null, $crossing->latest->isAfter($clock->deadline) => 'maybe',
                default => null,
            }];
        }
        if ($hot === null && $gates === []) {
            return null;
        }
        $readBy = $hot?->earliest;
        foreach ($gates as $gate) {
            // A reading before the gate shuts shows it passed, if it is passed by then.
            $readBy ??= $gate['crossing']?->latest !== null && !$gate['crossing']->latest->isAfter($gate['deadline']) ? $gate['crossing']->latest : $gate['deadline'];
        }

        return new self($fall, $track, $method, $hot, $gates, $readBy);
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

    /** @return list<Clock> of each gate the one that shuts first */
    private static function gateClocks(Assessment $assessment): array
    {
        $clocks = [];
        foreach ($assessment->clocks as $clock) {
            if ($clock->kind === ClockKind::Limit && str_starts_with($clock->rule, 'cool.')) {
                $clocks[$clock->rule] ??= $clock;
            }
        }

        return array_values($clocks);
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
