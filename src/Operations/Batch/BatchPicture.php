<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Platform\Picture\TemperatureAxis;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\ReheatingRules;

/**
 * Where everything of one batch is drawn: temperature over time, with the limits as what lies ahead on the road.
 * A crossing the readings leave open is a span, never a point.
 */
final readonly class BatchPicture
{
    public const WIDTH = 860;
    public const HEIGHT = 470;
    public const TOP = 44;
    public const BOTTOM = 400;
    public const LEFT = 52;
    public const RIGHT = 852;

    /** The mark of a piece, as a path around its middle. */
    public const MARKS = [
        'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0Z',
        'M0-6 6 5H-6Z',
        'M-4.500-4.500h9v9h-9Z',
        'M0-6.500 6 0 0 6.500-6 0Z',
        'M0 6 6-5H-6Z',
        'M-2-6h4v4h4v4h-4v4h-4v-4h-4v-4h4Z',
    ];

    private const RAW_MINUTES = 45;

    /** Of how many stretches of its width the lowest and the highest reading of a track are shown. */
    private const MOST_STRETCHES = 90;
    private const MOST_ROWS = 40;

    /** How far apart the letters of what was done stand. */
    private const SIGN_WIDTH = 17.0;

    /**
     * @param list<array{y: float, label: string}> $levels
     * @param list<array{x: float, label: string, is_midnight: bool}> $hours
     * @param list<array{stage: string, x: float, width: float}> $bands
     * @param list<PictureTrack> $tracks
     * @param list<array{rule: string, x: float, gate_y: float, label: string, width: float, is_right: bool, row: int,
     *     is_late: bool, is_passed: bool}> $gates
     * @param list<array{x: float, width: float, y: float, track: string, label: string, from: Instant, to: Instant,
     *     is_hot: bool}> $crossings
     * @param list<array{x: float, letter: string, id: string, event: Event}> $signs
     * @param string $fan how it is likely to fall, as the points of an outline; '' where there is no forecast
     * @param string $rise how it is likely to rise to what it is liked at
     */
    private function __construct(
        public array $levels,
        public array $hours,
        public float $hotY,
        public float $coldY,
        public float $nowX,
        public array $bands,
        public array $tracks,
        public array $gates,
        public array $crossings,
        public array $signs,
        public string $fan,
        public string $rise,
        public bool $isOpen,
    ) {
    }

    public static function of(
        Assessment $assessment,
        MeasureFormatter $figures,
        ?FallOutlook $fall = null,
        ?CookOutlook $cook = null,
    ): self {
        $site = $assessment->record->site;
        $unit = $site->unit;
        $time = self::timeAxis($assessment, $cook);
        $scale = new TemperatureAxis(
            Temperature::fahrenheit('20'),
            Temperature::fahrenheit('222'),
            self::TOP,
            self::BOTTOM,
        );
        $limits = $assessment->rules->limits();
        $middle = $assessment->rules->get(CoolingRules::class)->middle;
        $reheat = $assessment->rules->get(ReheatingRules::class)->own;
        $levels = [];
        foreach (
            [$limits->cold->threshold, $middle->threshold, $limits->hot->threshold, $reheat->threshold] as $limit
        ) {
            $printed = $limit->printedIn($unit);
            $levels[] = ['y' => $scale->y($printed), 'label' => $printed->number().'°'];
        }
        $top = $unit === TemperatureUnit::Fahrenheit ? Temperature::fahrenheit('203') : Temperature::celsius('95');
        $levels[] = ['y' => $scale->y($top), 'label' => $top->number().'°'];

        return new self(
            $levels,
            $time->hours($site->zone, $figures, 14),
            $scale->y($limits->hot->threshold->printedIn($unit)),
            $scale->y($limits->cold->threshold->printedIn($unit)),
            $time->clampedX($assessment->timeline->asOf),
            self::bands($assessment, $time),
            self::tracks($assessment, $time, $scale),
            self::gates($assessment, $time, $scale, $figures),
            self::crossings($assessment, $time, $scale),
            self::signs($assessment, $time),
            $fall === null ? '' : self::fan($fall, $time, $scale, $unit),
            $cook === null ? '' : self::rise($assessment, $cook, $time, $scale),
            !$assessment->timeline->hasEnded(),
        );
    }

    /** @return list<PictureMark> the latest readings, the last first, as many as are read out in a while */
    public function latest(): array
    {
        $marks = array_merge(...array_map(static fn (PictureTrack $track): array => $track->marks, $this->tracks));
        usort(
            $marks,
            static fn (PictureMark $one, PictureMark $other): int => $other->reading->order <=> $one->reading->order,
        );

        return \array_slice($marks, 0, self::MOST_ROWS);
    }

    /** @return array<string, string> of each letter at the foot the key of its word, by its own key */
    public function letters(): array
    {
        $letters = [];
        foreach ($this->signs as $sign) {
            $pit = $sign['event']->detail instanceof Note ? $sign['event']->detail->pitSign : null;
            $letters[$pit === null ? 'step.sign.'.$sign['letter'] : 'pit.letter.'.$pit->value] = $pit === null
                ? 'event.'.$sign['letter'].'.name'
                : 'pit.sign.'.$pit->value;
        }

        return $letters;
    }

    private static function timeAxis(Assessment $assessment, ?CookOutlook $cook): TimeAxis
    {
        $timeline = $assessment->timeline;
        $first = self::start($timeline);
        $last = $timeline->hasEnded()
            ? $timeline->events[\count($timeline->events) - 1]->at ?? $timeline->asOf
            : $timeline->asOf;
        $length = max(3600, $last->epoch - $first->epoch);
        $ahead = $timeline->hasEnded() ? intdiv($length, 20) : max(3600, intdiv($length, 5));
        foreach ($assessment->countdowns as $countdown) {
            $far = $countdown->deadline->epoch - $last->epoch + 900;
            if ($far > 0 && $far <= max(6 * 3600, $length)) {
                $ahead = max($ahead, $far);
            }
        }

        $window = $cook?->whole();
        if ($window?->latest !== null) {
            // What lies ahead of a cook may be most of it: as far as the picture can show it beside what was.
            $far = $window->latest->epoch - $last->epoch + 900;
            $ahead = max($ahead, min($far, max(3 * 3600, $length)));
        }

        return new TimeAxis(
            $first->plus(Span::ofSeconds(-intdiv($length, 40))),
            $last->plus(Span::ofSeconds($ahead)),
            self::LEFT,
            self::RIGHT,
        );
    }

    /** Between its fastest and its slowest course, as an outline. */
    private static function fan(
        FallOutlook $fall,
        TimeAxis $time,
        TemperatureAxis $scale,
        TemperatureUnit $unit,
    ): string {
        $cold = $warm = [];
        foreach ($fall->fan($time->to, $unit) as [$at, $coldest, $warmest]) {
            $cold[] = $time->x($at).','.$scale->y($coldest);
            $warm[] = $time->x($at).','.$scale->y($warmest);
        }

        return implode(' ', [...$cold, ...array_reverse($warm)]);
    }

    /**
     * From the last reading to between the earliest and the latest moment all of it may be done; nothing while a piece
     * has no estimate: it may be the slowest.
     */
    private static function rise(
        Assessment $assessment,
        CookOutlook $cook,
        TimeAxis $time,
        TemperatureAxis $scale,
    ): string {
        $last = $assessment->timeline->readings->last();
        $window = $cook->whole();
        if ($window === null || $cook->isReached || $last === null) {
            return '';
        }
        $target = $scale->y($cook->target);
        $from = [$time->x($last->instant()), $scale->y($last->temp)];
        $earliest = $time->x($window->earliest);
        $latest = $window->latest === null ? 2 * self::RIGHT : $time->x($window->latest);
        $points = [$from, [$earliest, $target], [$latest, $target]];
        if ($latest > self::RIGHT) {
            // What lies beyond the picture ends at its edge.
            $share = (self::RIGHT - $from[0]) / ($latest - $from[0]);
            $points = [$from, [min($earliest, self::RIGHT), $target]];
            $points[] = [self::RIGHT, $target];
            $points[] = [self::RIGHT, round($from[1] + $share * ($target - $from[1]), 1)];
        }

        return implode(' ', array_map(static fn (array $point): string => implode(',', $point), $points));
    }

    /** Where the picture begins: raw meat in the cold is left out but for its end. */
    private static function start(Timeline $timeline): Instant
    {
        foreach ($timeline->stages as $stage) {
            if (!$stage->is(Received::class, ColdHold::class, Freeze::class, Thaw::class)) {
                return $stage->index === 0 ? $stage->from : $stage->from->plus(Span::ofMinutes(-self::RAW_MINUTES));
            }
        }

        return $timeline->events[0]->at ?? $timeline->asOf;
    }

    /** @return list<array{x: float, letter: string, id: string, event: Event}> what was done between readings */
    private static function signs(Assessment $assessment, TimeAxis $time): array
    {
        $signs = [];
        $free = -\INF;
        foreach ($assessment->timeline->events as $event) {
            if ($event->kind()->declared->isMarked && $time->shows($event->at)) {
                $x = max($time->x($event->at), $free);
                $free = $x + self::SIGN_WIDTH;
                $signs[] = ['x' => $x, 'letter' => $event->kind()->name(), 'id' => $event->id, 'event' => $event];
            }
        }

        return $signs;
    }

    /** @return list<array{stage: string, x: float, width: float}> */
    private static function bands(Assessment $assessment, TimeAxis $time): array
    {
        $bands = [];
        foreach ($assessment->timeline->stages as $stage) {
            if (!$stage->isEnd() && $stage->to->epoch >= $time->from->epoch) {
                $x = $time->clampedX($stage->from);
                $bands[] = [
                    'stage' => $stage->name(),
                    'x' => $x,
                    'width' => max(1.0, round($time->clampedX($stage->to) - $x, 1)),
                ];
            }
        }

        return $bands;
    }

    /** @return list<PictureTrack> */
    private static function tracks(Assessment $assessment, TimeAxis $time, TemperatureAxis $scale): array
    {
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $tracks = [];
        $spots = [];
        foreach ($assessment->timeline->readings->byTrack() as $track => $trace) {
            $first = $trace->at(0);
            $spots[$first->spot] ??= \count($spots);
            $marks = [];
            $count = 0;
            foreach ($trace->all() as $reading) {
                if ($reading->at >= $time->from->epoch) {
                    $count += 1 + ($reading->leftOut->count ?? 0);
                    $marks[] = new PictureMark(
                        $time->x($reading->instant()),
                        $scale->y($reading->temp),
                        $reading,
                        isset($suspect[$reading->id]),
                    );
                }
            }
            $shown = PictureMark::thinned($marks, self::MOST_STRETCHES, self::WIDTH);
            if ($shown !== []) {
                $tracks[] = PictureTrack::of(
                    $track,
                    ($first->piece - 1) % \count(self::MARKS),
                    $spots[$first->spot] % 3,
                    $shown,
                    $count,
                );
            }
        }

        return PictureTrack::labelled($tracks);
    }

    /**
     * @return list<array{rule: string, x: float, gate_y: float, label: string, width: float, is_right: bool, row: int,
     *     is_late: bool, is_passed: bool}>
     */
    private static function gates(
        Assessment $assessment,
        TimeAxis $time,
        TemperatureAxis $scale,
        MeasureFormatter $figures,
    ): array {
        $site = $assessment->record->site;
        $gates = [];
        $ends = [];
        foreach (self::earliestGates($assessment) as [$rule, $limit, $deadline, $isPassed]) {
            if (!$time->shows($deadline)) {
                continue;
            }
            $label = $limit->printedIn($site->unit)->number().'° '.$figures->time($deadline, $site->zone);
            $x = $time->x($deadline);
            $width = 14 + 7.2 * mb_strlen($label);
            $isRight = $x + $width > self::RIGHT;
            $start = $isRight ? $x - $width : $x;
            $row = isset($ends[0]) && $ends[0] > $start ? 1 : 0;
            $ends[$row] = $start + $width + 4;
            $gates[] = [
                'rule' => $rule,
                'x' => $x,
                'gate_y' => $scale->y($limit->printedIn($site->unit)),
                'label' => $label,
                'width' => round($width, 1),
                'is_right' => $isRight,
                'row' => $row,
                'is_late' => !$isPassed && $assessment->timeline->asOf->isAfter($deadline),
                'is_passed' => $isPassed,
            ];
        }

        return $gates;
    }

    /**
     * For each gate and block, that of the track that must pass it first.
     *
     * @return list<array{string, Threshold, Instant, bool}> rule, limit, deadline, whether the record shows it passed
     *     in time
     */
    private static function earliestGates(Assessment $assessment): array
    {
        $gates = [];
        foreach ($assessment->findings as $finding) {
            $deadline = $finding->values['deadline'] ?? null;
            if (
                str_starts_with($finding->rule, 'cool.')
                && $finding->towards !== null
                && $deadline instanceof Instant
            ) {
                $block = $finding->rule.self::heatsBefore($assessment, $finding);
                if (!isset($gates[$block]) || $gates[$block][2]->isAfter($deadline)) {
                    $gates[$block] = [
                        $finding->rule,
                        $finding->towards,
                        $deadline,
                        $finding->verdict?->value === 'met',
                    ];
                }
            }
        }
        usort($gates, static fn (array $one, array $other): int => $one[2]->epoch <=> $other[2]->epoch);

        return $gates;
    }

    /** Which time off the heat a finding is about: the one after so many cooks, hot holds and reheats. */
    private static function heatsBefore(Assessment $assessment, Finding $finding): int
    {
        $late = $finding->values['late'] ?? null;
        $moment = $late instanceof Instant ? $late : $finding->to ?? $assessment->timeline->asOf;
        $isBefore = static fn (Stage $stage): bool => $stage->is(Cook::class, HotHold::class, Reheat::class)
            && $moment->isAfter($stage->from);

        return \count(array_filter($assessment->timeline->stages, $isBefore));
    }

    /**
     * @return list<array{x: float, width: float, y: float, track: string, label: string, from: Instant, to: Instant,
     *     is_hot: bool}>
     */
    private static function crossings(Assessment $assessment, TimeAxis $time, TemperatureAxis $scale): array
    {
        $unit = $assessment->record->site->unit;
        $crossings = [];
        foreach ($assessment->findings as $finding) {
            $early = $finding->values['early'] ?? null;
            $late = $finding->values['late'] ?? null;
            if ($finding->rule === 'cool.stage1' && $early instanceof Instant && $late instanceof Instant) {
                $hot = $assessment->rules->limits()->hot->threshold->printedIn($unit);
                $crossings[] = self::crossing(
                    $time,
                    $finding->track ?? '',
                    $early,
                    $late,
                    $scale->y($hot),
                    $hot->number(),
                    true,
                );
            }
            $span = self::spanOfHit($finding, $assessment);
            if ($span !== null && $finding->towards !== null) {
                $limit = $finding->towards->printedIn($unit);
                $crossings[] = self::crossing(
                    $time,
                    $finding->track ?? '',
                    $span[0],
                    $span[1],
                    $scale->y($limit),
                    $limit->number(),
                    false,
                );
            }
        }

        return $crossings;
    }

    /**
     * @return array{x: float, width: float, y: float, track: string, label: string, from: Instant, to: Instant,
     *     is_hot: bool}
     */
    private static function crossing(
        TimeAxis $time,
        string $track,
        Instant $from,
        Instant $to,
        float $y,
        string $label,
        bool $isHot,
    ): array {
        $x = $time->clampedX($from);

        return [
            'x' => $x,
            'width' => max(2.0, round($time->clampedX($to) - $x, 1)),
            'y' => $y,
            'track' => $track,
            'label' => $label.'°',
            'from' => $from,
            'to' => $to,
            'is_hot' => $isHot,
        ];
    }

    /** @return array{Instant, Instant}|null between the last reading above a gate and the first at or under it */
    private static function spanOfHit(Finding $finding, Assessment $assessment): ?array
    {
        if (
            !str_starts_with($finding->rule, 'cool.')
            || $finding->elapsed === null
            || $finding->to === null
            || $finding->track === null
        ) {
            return null;
        }
        $limit = $finding->towards;
        $previous = null;
        foreach ($assessment->timeline->readings->all() as $reading) {
            if ($reading->track !== $finding->track || $reading->at < ($finding->from->epoch ?? 0)) {
                continue;
            }
            if ($limit !== null && $reading->temp->isAtMost($limit)) {
                return $reading->at === $finding->to->epoch && $previous !== null
                    ? [Instant::ofEpoch($previous), $finding->to]
                    : null;
            }
            $previous = $reading->at;
        }

        return null;
    }
}
