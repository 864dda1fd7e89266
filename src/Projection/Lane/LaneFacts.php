<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Assess\AbandonedSpots;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Check\RawLeftoverCheck;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Assess\Reminder;
use Verjuicer\Core\Assess\Reminders;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Pull;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\Lateness;
use Verjuicer\Core\Forecast\Window;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/** Packs the board's facts of an assessment into JSON, and unpacks them. */
final readonly class LaneFacts
{
    /** Version of the packed shape; raised with every change of it. */
    public const VERSION = 12;
    private const MOST_POINTS = 24;
    private const PACKED = [
        'product',
        'pieces',
        'wrongs',
        'stages',
        'line',
        'last',
        'last_in_doubt',
        'is_short_of_code',
        'dues',
        'pit',
        'place',
        'ready_by',
        'outlook',
        'target',
        'late_gates',
        'hot_until',
        'hot',
        'cold',
        'left',
        'numbers',
        'reminders',
        'grams',
        'container',
        'has_leftover',
        'is_mass',
    ];

    public static function pack(Assessment $assessment, ?CookOutlook $cook, ?FallOutlook $fall): string
    {
        $timeline = $assessment->timeline;
        $stage = $timeline->stage();
        $last = $timeline->readings->last();
        $detail = $stage?->event->detail;
        $whole = $cook?->whole();
        $limits = $assessment->rules->limits();

        return json_encode(
            [
                'product' => $assessment->record->product->name,
                'pieces' => $assessment->record->product->held(),
                'wrongs' => self::wrongs($assessment),
                'stages' => array_map(
                    static fn (Stage $one): array => [
                        $one->name(),
                        $one->from->epoch,
                        $one->isOpen ? null : $one->to->epoch,
                        $one->isEnd(),
                    ],
                    $timeline->stages,
                ),
                'line' => array_map(self::point(...), self::line(Outline::of($timeline))),
                'last' => $last === null ? null : self::point($last),
                'last_in_doubt' => \in_array($last?->id, $assessment->suspectReadings, true),
                'is_short_of_code' => self::isShortOfCode($assessment),
                'dues' => array_map(
                    static fn (Countdown $one): array => [
                        $one->rule,
                        $one->kind->value,
                        $one->track,
                        $one->deadline->epoch,
                        self::threshold($one->towards),
                    ],
                    self::dues($assessment->countdowns),
                ),
                'pit' => $detail instanceof Cook ? $detail->pit : null,
                'place' => $detail instanceof HotHold ? $detail->place : null,
                'ready_by' => CookOutlook::readyBy($assessment)?->epoch,
                'outlook' => $whole?->latest === null ? null : [$whole->earliest->epoch, $whole->latest->epoch],
                'target' => $cook === null ? null : self::temperature($cook->target),
                'late_gates' => self::lateGates($fall),
                'hot_until' => $detail instanceof Rest ? $fall?->hot?->earliest->epoch : null,
                'hot' => self::threshold($limits->hot->threshold),
                'cold' => self::threshold($limits->cold->threshold),
                'left' => array_map(self::point(...), AbandonedSpots::of($assessment)),
                'numbers' => $assessment->record->product->pieceNumbers,
                'grams' => $assessment->record->portion?->grams,
                'container' => $assessment->record->portion?->container,
                'has_leftover' => \in_array(
                    RawLeftoverCheck::RULE,
                    array_map(static fn (Finding $one): string => $one->rule, $assessment->findings),
                    true,
                ),
                'is_mass' => self::isMass($timeline),
                'reminders' => array_map(
                    static fn (Reminder $one): array => [
                        $one->text,
                        $one->due?->epoch,
                        $one->temp === null ? null : self::temperature($one->temp),
                    ],
                    Reminders::of($timeline),
                ),
            ],
            \JSON_THROW_ON_ERROR,
        );
    }

    /**
     * The packed facts, with the earlier forecast while the stage is the same.
     *
     * @param string|null $before packed; null where there was no lane
     */
    public static function withForecastsOf(?string $before, string $packed): string
    {
        $old = json_decode($before ?? '', true);
        $new = json_decode($packed, true, flags: \JSON_THROW_ON_ERROR);
        if (!\is_array($old) || !\is_array($new) || ($old['stages'] ?? null) !== $new['stages']) {
            return $packed;
        }
        $forecasts = array_fill_keys(['outlook', 'target', 'late_gates', 'hot_until'], true);

        return json_encode(array_intersect_key($old, $forecasts) + $new, \JSON_THROW_ON_ERROR);
    }

    /**
     * @param array{batch_id: string, tag: int, version: int, ended_at: int|null, verdict: string, facts: string,
     *     parent_id: string|null, has_own_way: bool} $row
     *
     * @throws \JsonException|\TypeError|\ValueError if the facts are of another version
     */
    public static function unpack(array $row): Lane
    {
        /**
         * @var array{product: string|null, pieces: int, wrongs: list<array{string, string, list<string>|null, bool}>,
         *     stages: list<array{string, int, int|null, bool}>, line: list<array{int, string, string}>,
         *     last: array{int, string, string}|null, dues: list<array{string, string, string|null, int,
         *     list<string>|null}>, pit: string|null, place: string|null, ready_by: int|null, outlook: array{int,
         *     int}|null, target: string|null, late_gates: list<array{string, bool, int, list<string>|null}>,
         *     hot_until: int|null, hot: list<string>, cold: list<string>, left: list<array{int, string, string}>,
         *     numbers: list<int>|null, reminders: list<array{string, int|null, string|null}>, grams: int|null,
         *     container: string|null, has_leftover: bool, is_mass: bool,
         *     last_in_doubt: bool, is_short_of_code: bool} $facts
         */
        $facts = json_decode($row['facts'], true, flags: \JSON_THROW_ON_ERROR);
        if (array_diff_key(array_flip(self::PACKED), $facts) !== []) {
            throw new \ValueError('It was packed in another shape.');
        }
        $moment = static fn (?int $epoch): ?Instant => $epoch === null ? null : Instant::ofEpoch($epoch);

        return new Lane(
            $row['batch_id'],
            $row['version'],
            $moment($row['ended_at']),
            $row['tag'],
            $facts['product'] ?? '',
            $facts['pieces'],
            Verdict::from($row['verdict']),
            array_map(
                static fn (array $one): LaneDeviation => new LaneDeviation(
                    $one[0],
                    Verdict::from($one[1]),
                    self::thresholdOf($one[2]),
                    $one[3],
                ),
                $facts['wrongs'],
            ),
            array_map(
                static fn (array $one): LaneStage => new LaneStage(
                    $one[0],
                    Instant::ofEpoch($one[1]),
                    $moment($one[2]),
                    $one[3],
                ),
                $facts['stages'],
            ),
            array_map(self::pointOf(...), $facts['line']),
            $facts['last'] === null ? null : self::pointOf($facts['last']),
            array_map(
                static fn (array $one): LaneDue => new LaneDue(
                    $one[0],
                    CountdownKind::from($one[1]),
                    $one[2],
                    Instant::ofEpoch($one[3]),
                    self::thresholdOf($one[4]),
                ),
                $facts['dues'],
            ),
            $facts['pit'],
            $facts['place'],
            $moment($facts['ready_by']),
            $facts['outlook'] === null
                ? null
                : new Window(Instant::ofEpoch($facts['outlook'][0]), Instant::ofEpoch($facts['outlook'][1])),
            $facts['target'] === null ? null : self::temperatureOf($facts['target']),
            array_map(
                static fn (array $one): LaneLimitForecast => new LaneLimitForecast(
                    $one[0],
                    $one[1],
                    Instant::ofEpoch($one[2]),
                    self::thresholdOf($one[3]),
                ),
                $facts['late_gates'],
            ),
            $moment($facts['hot_until']),
            self::thresholdOf($facts['hot']) ?? throw new \ValueError('A lane has its hot limit.'),
            self::thresholdOf($facts['cold']) ?? throw new \ValueError('A lane has its cold limit.'),
            array_map(self::pointOf(...), $facts['left']),
            $facts['numbers'],
            $row['parent_id'],
            $row['has_own_way'],
            array_map(
                static fn (array $one): Reminder => new Reminder(
                    $one[0],
                    $moment($one[1]),
                    $one[2] === null ? null : self::temperatureOf($one[2]),
                ),
                $facts['reminders'],
            ),
            $facts['grams'],
            $facts['container'],
            $facts['has_leftover'],
            $facts['is_mass'],
            $facts['last_in_doubt'],
            $facts['is_short_of_code'],
        );
    }

    /** Whether it is on the heat and the code requirement is not met yet. */
    private static function isShortOfCode(Assessment $assessment): bool
    {
        return $assessment->timeline->stage()?->name() === 'cook'
            && ($assessment->rulesJudged['cook'] ?? Verdict::Met) !== Verdict::Met;
    }

    /** Whether it was pulled or chopped: then a pan is read, not its pieces. */
    private static function isMass(Timeline $timeline): bool
    {
        foreach ($timeline->events as $event) {
            if ($event->detail instanceof Pull) {
                return true;
            }
        }

        return false;
    }

    /** @return list<array{string, string, list<string>|null, bool}> */
    private static function wrongs(Assessment $assessment): array
    {
        $open = OpenActions::of($assessment);
        $wrongs = [];
        foreach ($assessment->findings as $finding) {
            if ($finding->isWrong() && !isset($wrongs[$finding->rule])) {
                $verdict = $assessment->rulesJudged[$finding->rule];
                $isOpen = \in_array($finding->rule, $open, true);
                $wrongs[$finding->rule] = [
                    $finding->rule,
                    $verdict->value,
                    self::threshold($finding->towards),
                    $isOpen,
                ];
            }
        }
        $wrongs = array_values($wrongs);
        $broken = Verdict::Broken->value;
        usort(
            $wrongs,
            static fn (array $one, array $other): int => [$other[3], $other[1] === $broken] <=> [
                $one[3],
                $one[1] === $broken,
            ],
        );

        return $wrongs;
    }

    /** @return list<array{string, bool, int, list<string>|null}> */
    private static function lateGates(?FallOutlook $fall): array
    {
        $late = [];
        foreach ($fall->gates ?? [] as $gate) {
            if ($gate->late !== null) {
                $late[] = [
                    $gate->rule,
                    $gate->late === Lateness::Sure,
                    $gate->deadline->epoch,
                    self::threshold($gate->towards),
                ];
            }
        }

        return $late;
    }

    /**
     * The readings of the track read most, thinned where they are many; the first and the last always stay.
     *
     * @param list<TrackReading> $readings
     *
     * @return list<TrackReading>
     */
    private static function line(array $readings): array
    {
        $most = [];
        foreach (Trace::of($readings)->byTrack() as $trace) {
            if ($trace->size() > \count($most)) {
                $most = $trace->all();
            }
        }
        $step = max(1, intdiv(\count($most) - 1, self::MOST_POINTS));
        $thinned = [];
        foreach ($most as $index => $reading) {
            if ($index % $step === 0 || $index === \count($most) - 1) {
                $thinned[] = $reading;
            }
        }

        return $thinned;
    }

    /**
     * One countdown a rule and kind: that of the track whose time runs out first.
     *
     * @param list<Countdown> $countdowns soonest first
     *
     * @return list<Countdown>
     */
    private static function dues(array $countdowns): array
    {
        $dues = [];
        foreach ($countdowns as $countdown) {
            $dues[$countdown->rule.$countdown->kind->value] ??= $countdown;
        }

        return array_values($dues);
    }

    /** @return array{int, string, string} */
    private static function point(TrackReading $reading): array
    {
        return [$reading->at, self::temperature($reading->temp), $reading->track];
    }

    /** @param array{int, string, string} $point */
    private static function pointOf(array $point): LanePoint
    {
        return new LanePoint(Instant::ofEpoch($point[0]), self::temperatureOf($point[1]), $point[2]);
    }

    private static function temperature(Temperature $temperature): string
    {
        return $temperature->number().$temperature->unit->value;
    }

    private static function temperatureOf(string $written): Temperature
    {
        return Temperature::parse($written, TemperatureUnit::Fahrenheit);
    }

    /** @return list<string>|null */
    private static function threshold(?Threshold $threshold): ?array
    {
        return $threshold === null ? null : array_map(self::temperature(...), $threshold->printed());
    }

    /** @param list<string>|null $printed */
    private static function thresholdOf(?array $printed): ?Threshold
    {
        $temperatures = array_map(self::temperatureOf(...), $printed ?? []);

        return match (\count($temperatures)) {
            0 => null,
            1 => Threshold::ofOne($temperatures[0]),
            default => Threshold::ofPair($temperatures[0], $temperatures[1]),
        };
    }
}
