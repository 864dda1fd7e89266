<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\FallGate;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\LikelyTime;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\Size;
use Verjuicer\Core\Forecast\TrackOutlook;
use Verjuicer\Core\Forecast\Window;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** A forecast as `verjuicer-forecast/1`: ranges that hold nine times in ten, and chances. It never clears food. */
final readonly class ForecastJson
{
    /** @return array<string, mixed> */
    public function of(Assessment $assessment, ?Temperature $target): array
    {
        $now = $assessment->timeline->asOf;
        $cook = CookOutlook::of($assessment, $target);
        $product = $assessment->record->product;
        $grams = $product->rawWeight?->grams();
        $fall = FallOutlook::of(
            $assessment,
            $grams === null ? null : Size::ofPiece(intdiv($grams, max(1, $product->pieces))),
        );

        return [
            'format' => 'verjuicer-forecast/1',
            'batch' => $assessment->record->code,
            'as_of' => $now->rfc3339(),
            'doneness' => $cook === null ? null : self::doneness($cook, $now),
            'falls' => $fall === null ? [] : self::falls($fall, $assessment, $now),
            'gates' => $fall === null ? [] : array_map(
                static fn (FallGate $gate): array => self::gate($gate, $now),
                $fall->gates,
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function doneness(CookOutlook $cook, Instant $now): array
    {
        return [
            'pieces' => array_map(
                static fn (TrackOutlook $track): array => [
                    'piece' => $track->piece(),
                    'track' => $track->track,
                    'target' => self::temperature($track->target),
                    'done' => $track->isReached,
                ] + self::moments(self::crossing($track->window), $now),
                $cook->tracks,
            ),
            'batch' => [
                'target' => self::temperature($cook->target),
                'done' => $cook->isReached,
            ] + self::moments(self::crossing($cook->whole()), $now),
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function falls(FallOutlook $fall, Assessment $assessment, Instant $now): array
    {
        $unit = $assessment->record->site->unit;
        $hot = $assessment->rules->limits()->hot->threshold;
        $falls = [];
        foreach ($fall->falls as $track => $one) {
            $limit = Point::celsius($hot->printedIn($unit));
            if ($one->celsius > $limit) {
                $falls[] = [
                    'piece' => (int) $track,
                    'track' => (string) $track,
                    'limit' => 'hot',
                    'towards' => self::temperature($hot->printedIn($unit)),
                ] + self::moments($one->crossing($limit), $now);
            }
        }

        return $falls;
    }

    /** @return array<string, mixed> */
    private static function gate(FallGate $gate, Instant $now): array
    {
        $crossing = $gate->crossing;
        $time = $crossing === null ? null : LikelyTime::between($now, $crossing->earliest, $crossing->latest);

        return [
            'rule' => $gate->rule,
            'track' => $gate->track,
            'deadline' => $gate->deadline->rfc3339(),
            'late' => match (true) {
                $crossing === null => 1.0,
                $time !== null => round($time->lateFor($gate->deadline), 3),
                // It may never get there: in time it is at the most as likely as not.
                default => $crossing->earliest->isAfter($gate->deadline) ? 1.0 : 0.5,
            },
        ] + self::moments($crossing, $now);
    }

    private static function crossing(?Window $window): ?Crossing
    {
        return $window === null ? null : new Crossing($window->earliest, $window->latest);
    }

    /** @return array{earliest: string|null, likely: string|null, latest: string|null} beyond 14 days, or never: null */
    private static function moments(?Crossing $crossing, Instant $now): array
    {
        $time = $crossing === null ? null : LikelyTime::between($now, $crossing->earliest, $crossing->latest);
        $told = static fn (?Instant $at): ?string => LikelyTime::isWithinSight($at, $now) ? $at?->rfc3339() : null;

        return [
            'earliest' => $told($crossing?->earliest),
            'likely' => $told($time?->likely()),
            'latest' => $told($crossing?->latest),
        ];
    }

    /** @return array<string, float|int> */
    private static function temperature(Temperature $temperature): array
    {
        return [strtolower($temperature->unit->value) => $temperature->tenths / 10];
    }
}
