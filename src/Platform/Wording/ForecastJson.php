<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\CoolingLimitOutlook;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\PieceOutlooks;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\Remedy;
use Verjuicer\Core\Forecast\TrackOutlook;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\CoolingRules;

/** A forecast as `verjuicer-forecast/1`: ranges that hold nine times in ten, and chances. It never clears food. */
final readonly class ForecastJson
{
    /** @return array<string, mixed> */
    public function of(Assessment $assessment, ?Temperature $target): array
    {
        $now = $assessment->timeline->asOf;
        $cook = CookOutlook::of($assessment, $target, isAsked: $target !== null);
        $fall = FallOutlook::of($assessment);

        return [
            'format' => 'verjuicer-forecast/1',
            'batch' => $assessment->record->code,
            'as_of' => $now->rfc3339(),
            'doneness' => $cook === null ? null : self::doneness($cook, PieceOutlooks::of($assessment, $cook), $now),
            'falls' => $fall === null ? [] : self::falls($fall, $assessment, $now),
            'gates' => $fall === null ? [] : array_map(
                static fn (CoolingLimitOutlook $gate): array => self::gate($gate, $now),
                $fall->gates,
            ),
            'asks' => $fall?->asks->value,
            'remedies' => $fall === null ? [] : array_map(
                static fn (Remedy $one): array => ['what' => $one->kind->value, 'late' => round($one->late, 3)],
                $fall->remedies($assessment),
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function doneness(CookOutlook $cook, PieceOutlooks $every, Instant $now): array
    {
        return [
            'pieces' => array_map(
                static fn (TrackOutlook $track): array => [
                    'piece' => $track->piece(),
                    'track' => $track->track,
                    'target' => self::temperature($track->target),
                    'done' => $track->isReached,
                ] + self::moments($track->crossing, $now),
                $every->tracks,
            ),
            'batch' => [
                'target' => self::temperature($cook->target),
                'done' => $every->isDone,
                'slowest' => $every->slowest,
            ] + self::moments($every->all, $now),
            'stall_ends' => $cook->stallEnds === null ? null : self::moments($cook->stallEnds, $now),
            'carried_over' => $cook->carriedOver === null ? null : [
                'least' => self::temperature($cook->carriedOver->least),
                'likely' => self::temperature($cook->carriedOver->likely),
                'most' => self::temperature($cook->carriedOver->most),
            ],
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function falls(FallOutlook $fall, Assessment $assessment, Instant $now): array
    {
        $unit = $assessment->record->site->unit;
        $limits = $assessment->rules->limits();
        $towards = ['hot' => $limits->hot->threshold];
        if ($fall->gates !== [] || $fall->holding->isCold()) {
            $middle = $assessment->rules->get(CoolingRules::class)->middle->threshold;
            $towards += ['middle' => $middle, 'cold' => $limits->cold->threshold];
        }
        $falls = [];
        foreach ($fall->falls as $track => $one) {
            foreach ($towards as $name => $threshold) {
                $limit = Point::celsius($threshold->printedIn($unit));
                if ($one->celsius > $limit) {
                    $falls[] = [
                        'piece' => (int) $track,
                        'track' => (string) $track,
                        'limit' => $name,
                        'towards' => self::temperature($threshold->printedIn($unit)),
                    ] + self::moments($one->crossing($limit), $now);
                }
            }
        }

        return $falls;
    }

    /** @return array<string, mixed> */
    private static function gate(CoolingLimitOutlook $gate, Instant $now): array
    {
        return [
            'rule' => $gate->rule,
            'track' => $gate->track,
            'deadline' => $gate->deadline->rfc3339(),
            'late' => round($gate->chance, 3),
        ] + self::moments($gate->crossing, $now);
    }

    /** @return array{earliest: string|null, likely: string|null, latest: string|null} beyond 14 days, or never: null */
    private static function moments(?Crossing $crossing, Instant $now): array
    {
        $told = static fn (?Instant $at): ?string => $at === null || $at->epoch - $now->epoch > Belief::WITHIN
            ? null
            : $at->rfc3339();

        return [
            'earliest' => $told($crossing?->earliest),
            'likely' => $told($crossing?->likely),
            'latest' => $told($crossing?->latest),
        ];
    }

    /** @return array<string, float|int> */
    private static function temperature(Temperature $temperature): array
    {
        return [strtolower($temperature->unit->value) => $temperature->tenths / 10];
    }
}
