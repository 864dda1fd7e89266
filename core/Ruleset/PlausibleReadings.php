<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/**
 * Plausible readings of meat, so that a slip of the finger is asked about once before it is saved. It refuses nothing.
 */
final readonly class PlausibleReadings
{
    /**
     * @param Threshold $offFreezer the lowest temperature of meat out of a freezer
     * @param Temperature $jump a difference: the largest jump of a moved probe; in tenths of its unit
     * @param Temperature $betweenSpots a difference: the largest between two spots of one piece at once
     * @param Temperature $perMinute a difference: the most meat gains or loses in a minute
     */
    public function __construct(
        private Threshold $coldest,
        private Threshold $hottest,
        private Threshold $offFreezer,
        private Temperature $jump,
        private Temperature $betweenSpots,
        private Temperature $perMinute,
    ) {
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            $fields->part('coldest')->threshold(),
            $fields->part('hottest')->threshold(),
            $fields->part('off_freezer')->threshold(),
            $fields->part('jump')->threshold()->printedIn(TemperatureUnit::Fahrenheit),
            $fields->part('between_spots')->threshold()->printedIn(TemperatureUnit::Fahrenheit),
            $fields->part('jump_per_minute')->threshold()->printedIn(TemperatureUnit::Fahrenheit),
        );
    }

    /**
     * @param ReadingContext $around facts about the meat at that moment
     *
     * @return list<SlipReason> none where it is plausible
     */
    public function doubts(Temperature $reading, Instant $at, ReadingContext $around): array
    {
        $doubts = $this->ofNumber($reading, $at, $around);
        $isOtherUnit = !\in_array($reading->unit, $around->units, true);
        if ($isOtherUnit || ($doubts !== [] && $this->fitsInOtherUnit($reading, $at, $around))) {
            $doubts[] = SlipReason::OtherUnit;
        }

        return $doubts;
    }

    /** Whether no food on its way through a kitchen is as cold or as hot as that. */
    public function isOffScale(Temperature $reading): bool
    {
        return $reading->isBelow($this->coldest) || $reading->isAbove($this->hottest);
    }

    /** Whether meat at one spot cannot change from one temperature to the other in so many seconds. */
    public function isImpossible(Temperature $one, Temperature $other, int $seconds): bool
    {
        return $this->isBeyond($this->jump, $one, $other, $seconds);
    }

    /** By how many ninetieths of a degree Celsius readings may differ however soon they follow one another. */
    public function jumpNinetieths(): int
    {
        return ($this->jump->unit === TemperatureUnit::Fahrenheit ? 5 : 9) * $this->jump->tenths;
    }

    private function isBeyond(Temperature $atOnce, Temperature $one, Temperature $other, int $seconds): bool
    {
        $scale = $atOnce->unit === TemperatureUnit::Fahrenheit ? 5 : 9;
        $difference = abs($other->ninetieths - $one->ninetieths);

        // In sixtieths, so that the seconds between the readings count in whole numbers.
        return 60 * $difference > $scale * (60 * $atOnce->tenths + $this->perMinute->tenths * abs($seconds));
    }

    /** @return list<SlipReason> */
    private function ofNumber(Temperature $reading, Instant $at, ReadingContext $around): array
    {
        $doubts = [];
        if ($reading->isBelow($this->coldest)) {
            $doubts[] = SlipReason::TooCold;
        } elseif (!$around->isFrozen && $reading->isBelow($this->offFreezer)) {
            $doubts[] = SlipReason::OffFreezer;
        }
        if ($reading->isAbove($this->hottest)) {
            $doubts[] = SlipReason::TooHot;
        }
        if (
            $around->sameSpot !== null
            && $this->isBeyond(
                $this->jump,
                $around->sameSpot[0],
                $reading,
                Span::between($around->sameSpot[1], $at)->seconds,
            )
        ) {
            $doubts[] = SlipReason::Jump;
        }
        foreach ($doubts === [] ? $around->otherSpots : [] as [$temp, $readAt]) {
            if ($this->isBeyond($this->betweenSpots, $temp, $reading, Span::between($readAt, $at)->seconds)) {
                return [SlipReason::FarFromOtherSpot];
            }
        }

        return $doubts;
    }

    private function fitsInOtherUnit(Temperature $reading, Instant $at, ReadingContext $around): bool
    {
        $other =
            $reading->unit === TemperatureUnit::Fahrenheit ? TemperatureUnit::Celsius : TemperatureUnit::Fahrenheit;
        try {
            return $this->ofNumber(Temperature::ofTenths($reading->tenths, $other), $at, $around) === [];
        } catch (MalformedTemperature) {
            return false;
        }
    }
}
