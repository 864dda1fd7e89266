<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\App\Projection\Report\Deviation;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\Window;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Detail\Held;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** Packs what the board, and the trends in SQL, need of an assessment into JSON, and unpacks what the board needs. */
final readonly class LaneFacts
{
    private const MOST_POINTS = 24;

    public static function pack(Assessment $assessment, ?CookOutlook $outlook, ?FallOutlook $fall): string
    {
        $timeline = $assessment->timeline;
        $stage = $timeline->stage();
        $last = (new Trace($timeline->readings))->last();
        $wrongs = array_filter($assessment->rulesJudged, static fn (Verdict $verdict): bool => $verdict === Verdict::Broken || $verdict === Verdict::NotShown);

        return json_encode([
            'product' => $assessment->record->product->name,
            'pieces' => $assessment->record->product->pieces,
            'rules' => $assessment->rules->id,
            'wrongs' => array_map(static fn (Verdict $verdict): string => $verdict->value, $wrongs),
            'judged' => (object) array_map(static fn (Verdict $verdict): string => $verdict->value, $assessment->rulesJudged),
            'deviations' => array_map(static fn (Deviation $one): array => [$one->rule, $one->at?->epoch, $one->unit], Deviation::of($assessment)),
            'where' => $stage?->place(),
            'units' => Deviation::units($assessment),
            'house' => array_values(array_unique(array_map(static fn (Finding $finding): string => $finding->rule, array_filter($assessment->findings, static fn (Finding $finding): bool => !$finding->isJudged())))),
            'stages' => array_map(static fn (Stage $stage): array => [$stage->type()->value, $stage->from->epoch, $stage->isOpen ? null : $stage->to->epoch], $timeline->stages),
            'line' => array_map(static fn (Reading $reading): array => [$reading->at, $reading->temp->tenths, $reading->temp->unit->value], self::line($timeline->readings)),
            'last' => $last === null ? null : [$last->temp->tenths, $last->temp->unit->value, $last->track, $last->at],
            'pit' => $stage?->type() === EventType::Cook ? (new Extras($stage->event))->text('pit') : null,
            'actions' => array_combine($open = OpenActions::of($assessment), array_map(static fn (string $rule): string => $assessment->rulesJudged[$rule]->value, $open)),
            'late_gates' => array_values(array_map(static fn (array $gate): array => [$gate['rule'], $gate['late'] === 'sure', $gate['deadline']->epoch], array_filter($fall->gates ?? [], static fn (array $gate): bool => $gate['late'] !== null))),
            'hot_until' => $stage?->type() === EventType::Rest ? $fall?->hot?->earliest->epoch : null,
            'place' => $stage?->event->detail instanceof Held && $stage->type() === EventType::HotHold ? $stage->event->detail->place : null,
            'ready_by' => CookOutlook::readyBy($assessment)?->epoch,
            'outlook' => $outlook?->whole() === null ? null : [$outlook->whole()->earliest->epoch, $outlook->whole()->latest->epoch, $outlook->target->tenths, $outlook->target->unit->value],
            'dues' => array_map(static fn (Countdown $countdown): array => [$countdown->rule, $countdown->kind->value, $countdown->track, $countdown->deadline->epoch], self::dues($assessment->countdowns)),
        ], \JSON_THROW_ON_ERROR);
    }

    /** @param array{batch_id: string, tag: int, version: int, has_ended: bool, verdict: string, facts: string} $row */
    public static function unpack(array $row): Lane
    {
        /** @var array{product: string|null, pieces: int, rules: string, wrongs: array<string, string>, stages: list<array{string, int, int|null}>, line: list<array{int, int, string}>, last: array{int, string, string, int}|null, dues: list<array{string, string, string|null, int}>, actions: array<string, string>, late_gates: list<array{string, bool, int}>, place: string|null, hot_until: int|null, pit: string|null, ready_by: int|null, outlook: array{int, int, int, string}|null} $facts */
        $facts = json_decode($row['facts'], true, flags: \JSON_THROW_ON_ERROR);
        $wrongs = [];
        foreach ($facts['wrongs'] as $rule => $verdict) {
            $wrongs[] = [$rule, Verdict::from($verdict)];
        }
        $last = $facts['last'];
        $outlook = $facts['outlook'];

        return new Lane(
            $row['batch_id'],
            $row['version'],
            $row['has_ended'],
            $row['tag'],
            $facts['product'] ?? '',
            $facts['pieces'],
            $facts['rules'],
            Verdict::from($row['verdict']),
            $wrongs,
            array_map(static fn (array $stage): array => [EventType::from($stage[0]), Instant::ofEpoch($stage[1]), $stage[2] === null ? null : Instant::ofEpoch($stage[2])], $facts['stages']),
            array_map(static fn (array $point): array => [Instant::ofEpoch($point[0]), Temperature::ofTenths($point[1], TemperatureUnit::from($point[2]))], $facts['line']),
            $last === null ? null : Temperature::ofTenths($last[0], TemperatureUnit::from($last[1])),
            $last[2] ?? null,
            $last === null ? null : Instant::ofEpoch($last[3]),
            array_map(static fn (array $due): array => [$due[0], CountdownKind::from($due[1]), $due[2], Instant::ofEpoch($due[3])], $facts['dues']),
            $facts['pit'],
            $facts['ready_by'] === null ? null : Instant::ofEpoch($facts['ready_by']),
            $outlook === null ? null : new Window(Instant::ofEpoch($outlook[0]), Instant::ofEpoch($outlook[1])),
            $outlook === null ? null : Temperature::ofTenths($outlook[2], TemperatureUnit::from($outlook[3])),
            array_map(static fn (string $rule, string $verdict): array => [$rule, Verdict::from($verdict)], array_keys($facts['actions']), $facts['actions']),
            array_map(static fn (array $gate): array => [$gate[0], $gate[1], Instant::ofEpoch($gate[2])], $facts['late_gates']),
            $facts['place'],
            $facts['hot_until'] === null ? null : Instant::ofEpoch($facts['hot_until']),
        );
    }

    /**
     * The readings of the track read most, thinned where they are many; the first and the last always stay.
     *
     * @param list<Reading> $readings
     *
     * @return list<Reading>
     */
    private static function line(array $readings): array
    {
        $most = [];
        foreach ((new Trace($readings))->byTrack() as $trace) {
            if (\count($trace->readings) > \count($most)) {
                $most = $trace->readings;
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
     * One clock a rule and kind: that of the track whose time runs out first.
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
}
