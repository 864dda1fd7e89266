<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Due;

use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** What is due across all batches: breaches first, then by the clock. */
final readonly class DueNext
{
    private const HOURS_AHEAD = 18;

    public function __construct(private RuleSetLibrary $ruleSets, private Figures $figures)
    {
    }

    /**
     * @param list<Lane>         $lanes
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
        usort($dues, static fn (Due $one, Due $other): int => [$one->deadline->epoch ?? 0, $one->verdict !== Verdict::Broken, $one->lane->tag] <=> [$other->deadline->epoch ?? 0, $other->verdict !== Verdict::Broken, $other->lane->tag]);

        return $dues;
    }

    /**
     * @param array<string, int> $intervals
     *
     * @return list<Due>
     */
    private function ofLane(Lane $lane, Instant $now, TemperatureUnit $unit, array $intervals): array
    {
        $dues = [];
        if ($lane->actions !== []) {
            [$rule, $verdict] = $lane->actions[0];
            $dues[] = new Due($lane, $rule, 'action', null, true, $verdict === Verdict::Broken ? 'due.broken.'.$rule : 'due.settle', $this->gate($lane, $rule, $unit), $verdict, \count($lane->actions) - 1);
        }
        if ($lane->hotUntil !== null) {
            $dues[] = new Due($lane, 'hot_limit', 'check', $lane->hotUntil, $now->isAfter($lane->hotUntil), 'due.forecast.hot', $this->gate($lane, 'hot_hold', $unit));
        }
        foreach ($lane->lateGates as [$rule, $isSure, $deadline]) {
            if (!$now->isAfter($deadline)) {
                $dues[] = new Due($lane, $rule, 'forecast', $deadline, false, $isSure ? 'due.forecast.late' : 'due.forecast.maybe', $this->gate($lane, $rule, $unit));
            }
        }
        $unitChecks = self::unitChecks($lane, $now, $intervals);
        $dues = [...$dues, ...$unitChecks];
        if ($lane->readyBy !== null && $lane->outlook !== null && $lane->outlook->latest->isAfter($lane->readyBy)) {
            $isSure = $lane->outlook->earliest->isAfter($lane->readyBy);
            $dues[] = new Due($lane, 'house.service', 'house', $lane->readyBy, $now->isAfter($lane->readyBy), $isSure ? 'due.house.service_late' : 'due.house.service_maybe', '');
        }
        $horizon = $now->plus(Span::ofHours(self::HOURS_AHEAD));
        $passed = null;
        foreach ($lane->dues as [$rule, $kind, $track, $deadline]) {
            $isLate = $now->isAfter($deadline);
            if ($deadline->isAfter($horizon)) {
                break;
            }
            if ($unitChecks !== [] && $kind === CountdownKind::Check && $rule === 'hot_hold') {
                continue;
            }
            $due = new Due($lane, $rule, $kind->value, $deadline, $isLate, 'due.'.$kind->value.'.'.$rule, $this->gate($lane, $rule, $unit));
            if ($isLate) {
                // Of several that have passed, the last says where the batch stands.
                $passed = $kind === CountdownKind::House && $passed !== null ? $passed : $due;
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
        $from = $lane->lastAt !== null && $lane->lastAt->isAfter($stage[1]) ? $lane->lastAt : $stage[1];
        $due = $from->plus(Span::ofMinutes($intervals[$lane->place]));

        return [new Due($lane, 'hot_hold', 'unit', $due, $now->isAfter($due), 'due.unit', $lane->place)];
    }

    private function gate(Lane $lane, string $rule, TemperatureUnit $unit): string
    {
        $limit = self::limit($this->ruleSets->get($lane->ruleSet), $rule);

        return $limit === null ? '' : $this->figures->threshold($limit, $unit);
    }

    /** The temperature that ends the clock of a rule, where one does. */
    public static function limit(RuleSet $rules, string $rule): ?Threshold
    {
        return match ($rule) {
            'cool.stage1' => $rules->coolingMiddle->threshold,
            'cool.total' => $rules->cold->threshold,
            'reheat' => $rules->reheatOwn->threshold,
            'hot_hold', 'rest', 'house.come_up' => $rules->hot->threshold,
            default => null,
        };
    }
}
