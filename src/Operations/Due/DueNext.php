<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\LaneDeviation;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/**
 * What is due across all batches: breaches first, then by the clock. What each runs towards comes with its countdown.
 */
final readonly class DueNext
{
    private const HOURS_AHEAD = 18;

    public function __construct(private MeasureFormatter $figures)
    {
    }

    /**
     * @param list<Lane> $lanes
     * @param array<string, int> $intervals minutes between the checks of hot-holding units, by name
     *
     * @return list<Due>
     */
    public function of(array $lanes, Instant $now, TemperatureUnit $unit, array $intervals = []): array
    {
        $dues = [];
        foreach ($lanes as $lane) {
            $dues = [...$dues, ...$this->ofLane($lane, $now, $unit, $intervals)];
        }
        $place = static fn (Due $due): array => [
            $due->deadline->epoch ?? 0,
            $due->verdict !== Verdict::Broken,
            $due->lane->tag,
        ];
        usort($dues, static fn (Due $one, Due $other): int => $place($one) <=> $place($other));

        return $dues;
    }

    /**
     * @param array<string, int> $intervals
     *
     * @return list<Due>
     */
    private function ofLane(Lane $lane, Instant $now, TemperatureUnit $unit, array $intervals): array
    {
        $actions = $lane->actions();
        $dues = [];
        if ($actions !== []) {
            $first = $actions[0];
            $message = $first->verdict === Verdict::Broken ? 'due.broken.'.$first->rule : 'due.settle';
            $gate = $this->gate($first->towards, $unit);
            $dues[] = new Due(
                $lane,
                $first->rule,
                'action',
                null,
                true,
                $message,
                $gate,
                $first->verdict,
                \count($actions) - 1,
            );
        }
        if ($lane->hasEnded()) {
            return $dues;
        }
        $unitChecks = self::unitChecks($lane, $now, $intervals);

        return [
            ...$dues,
            ...self::reminders($lane, $now),
            ...$this->forecasts($lane, $now, $unit),
            ...$unitChecks,
            ...$this->countdowns($lane, $now, $unit, $unitChecks !== []),
        ];
    }

    /** @return list<Due> what the crew wants to be told of, by the clock */
    private static function reminders(Lane $lane, Instant $now): array
    {
        $horizon = $now->plus(Span::ofHours(self::HOURS_AHEAD));
        $dues = [];
        foreach ($lane->reminders as $one) {
            if ($one->due !== null && !$one->due->isAfter($horizon)) {
                $dues[] = new Due(
                    $lane,
                    'reminder',
                    'reminder',
                    $one->due,
                    $now->isAfter($one->due),
                    'due.reminder',
                    $one->text,
                );
            }
        }

        return $dues;
    }

    /** @return list<Due> */
    private function forecasts(Lane $lane, Instant $now, TemperatureUnit $unit): array
    {
        $dues = [];
        if ($lane->hotUntil !== null) {
            $isLate = $now->isAfter($lane->hotUntil);
            $gate = $this->gate($lane->hot, $unit);
            $dues[] = new Due($lane, 'hot_limit', 'check', $lane->hotUntil, $isLate, 'due.forecast.hot', $gate);
        }
        foreach ($lane->lateGates as $late) {
            if (!$now->isAfter($late->deadline)) {
                $message = $late->isSure ? 'due.forecast.late' : 'due.forecast.maybe';
                $dues[] = new Due(
                    $lane,
                    $late->rule,
                    'forecast',
                    $late->deadline,
                    false,
                    $message,
                    $this->gate($late->towards, $unit),
                );
            }
        }
        if ($lane->readyBy !== null && $lane->outlook !== null && $lane->outlook->latest->isAfter($lane->readyBy)) {
            $message = $lane->outlook->earliest->isAfter($lane->readyBy)
                ? 'due.house.service_late'
                : 'due.house.service_maybe';
            $dues[] = new Due(
                $lane,
                'house.service',
                'house',
                $lane->readyBy,
                $now->isAfter($lane->readyBy),
                $message,
                '',
            );
        }

        return $dues;
    }

    /** @return list<Due> */
    private function countdowns(Lane $lane, Instant $now, TemperatureUnit $unit, bool $hasUnitChecks): array
    {
        $horizon = $now->plus(Span::ofHours(self::HOURS_AHEAD));
        $dues = [];
        $passed = null;
        $settled = array_fill_keys(
            array_map(static fn (LaneDeviation $wrong): string => $wrong->rule, $lane->actions()),
            true,
        );
        $isBroken = array_filter(
            $lane->actions(),
            static fn (LaneDeviation $wrong): bool => $wrong->verdict === Verdict::Broken,
        ) !== [];
        foreach ($lane->dues as $one) {
            if ($one->deadline->isAfter($horizon)) {
                break;
            }
            if ($hasUnitChecks && $one->kind === CountdownKind::Check && $one->rule === 'hot_hold') {
                continue;
            }
            $isLate = $now->isAfter($one->deadline);
            if (($isLate && isset($settled[$one->rule])) || ($isBroken && $one->rule === 'date_mark')) {
                // It stands there as what is to be settled; and until a breach is settled no date says "use by".
                continue;
            }
            $message = $isLate && $one->kind === CountdownKind::Limit
                ? 'due.past.'.$one->rule
                : 'due.'.$one->kind->value.'.'.$one->rule;
            $due = new Due(
                $lane,
                $one->rule,
                $one->kind->value,
                $one->deadline,
                $isLate,
                $message,
                $this->gate($one->towards, $unit),
            );
            if ($isLate) {
                // Of several that have passed, the last says where the batch stands.
                $passed = $one->kind === CountdownKind::House && $passed !== null ? $passed : $due;
            } else {
                $dues[] = $due;
            }
        }

        return $passed === null ? $dues : [$passed, ...$dues];
    }

    /**
     * The check of the unit it is held in, where that has an interval of its own.
     *
     * @param array<string, int> $intervals
     *
     * @return list<Due>
     */
    private static function unitChecks(Lane $lane, Instant $now, array $intervals): array
    {
        $stage = $lane->stages === [] ? null : $lane->stages[\count($lane->stages) - 1];
        if ($lane->place === null || $stage === null || !isset($intervals[$lane->place])) {
            return [];
        }
        $from = $lane->last !== null && $lane->last->at->isAfter($stage->from) ? $lane->last->at : $stage->from;
        $due = $from->plus(Span::ofMinutes($intervals[$lane->place]));

        return [new Due($lane, 'hot_hold', 'unit', $due, $now->isAfter($due), 'due.unit', $lane->place)];
    }

    private function gate(?Threshold $towards, TemperatureUnit $unit): string
    {
        return $towards === null ? '' : $this->figures->threshold($towards, $unit);
    }
}
