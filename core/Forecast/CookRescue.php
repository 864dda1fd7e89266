<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Belief\PlannedSteps;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** Remedies for a late cook, each forecast from the same readings. A forecast. */
final readonly class CookRescue
{
    private const WRAP = 'foil';
    private const HOTTEST = 163.0; // °C; about 325 °F
    private const UP_F = 25;
    private const UP_C = 15;

    /** @param list<CookRemedy> $remedies the surest first; none where it is not late, or nothing here helps */
    private function __construct(public array $remedies)
    {
    }

    /** @param CookOutlook $now the forecast without a remedy, with the same target and learning */
    public static function of(
        Assessment $assessment,
        CookOutlook $now,
        ?Temperature $target,
        ?LearnedParameters $learned = null,
    ): self {
        $late = $now->late();
        if ($late === null || $now->lateness() === null) {
            return new self([]);
        }
        $at = $assessment->timeline->asOf->epoch;
        $set = self::turnedUp($assessment);
        $remedies = [];
        foreach (CookRemedyKind::cases() as $kind) {
            if (($kind->wraps() && $now->isWrapped) || ($kind->turnsUp() && $set === null)) {
                continue;
            }
            $also = [];
            if ($kind->wraps()) {
                $also[] = PlannedSteps::wrap(self::WRAP, $at, null);
            }
            if ($kind->turnsUp() && $set !== null) {
                $also[] = PlannedSteps::set($at, Point::celsius($set));
            }
            $then = CookOutlook::of($assessment, $target, $also, $learned)?->late();
            if ($then !== null && $then < $late) {
                $remedies[] = new CookRemedy($kind, $kind->turnsUp() ? $set : null, $then);
            }
        }
        usort($remedies, static fn (CookRemedy $one, CookRemedy $other): int => $one->late <=> $other->late);

        return new self($remedies);
    }

    /** @return Temperature|null the highest useful set point, in the unit of the last one; null without one */
    private static function turnedUp(Assessment $assessment): ?Temperature
    {
        $set = PitSetting::last($assessment);
        if ($set === null) {
            return null;
        }
        $up = $set->unit === TemperatureUnit::Fahrenheit ? self::UP_F : self::UP_C;
        $hotter = Temperature::ofTenths($set->tenths + 10 * $up, $set->unit);

        return Point::celsius($hotter) > self::HOTTEST ? null : $hotter;
    }
}
