<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/** What a reading of meat can be, so that a slip of the finger is asked about once before it is kept. It refuses nothing. */
final readonly class Plausible
{
    /**
     * @param Temperature $jump      a difference: what two spots or a moved probe may differ by at once; in tenths of its unit
     * @param Temperature $perMinute a difference: what meat can gain or lose in a minute
     */
    public function __construct(
        private Threshold $coldest,
        private Threshold $hottest,
        private Temperature $jump,
        private Temperature $perMinute,
    ) {
    }

    public static function read(RuleFields $fields): self
    {
        return new self(
            $fields->part('coldest')->threshold(),
            $fields->part('hottest')->threshold(),
            $fields->part('jump')->threshold()->printedIn(TemperatureUnit::Fahrenheit),
            $fields->part('jump_per_minute')->threshold()->printedIn(TemperatureUnit::Fahrenheit),
        );
    }

    /**
     * @param Temperature|null $before the reading before it on its track
     *
     * @return list<Doubt> none where it is plausible
     */
    public function doubts(Temperature $reading, Instant $at, TemperatureUnit $siteUnit, ?Temperature $before, ?Instant $beforeAt): array
    {
        $doubts = $this->ofNumber($reading, $at, $before, $beforeAt);
        if ($reading->unit !== $siteUnit || ($doubts !== [] && $this->fitsInOtherUnit($reading, $at, $before, $beforeAt))) {
            $doubts[] = Doubt::OtherUnit;
        }

        return $doubts;
    }

    /** Whether meat at one spot cannot change from one temperature to the other in so many seconds. */
    public function isImpossible(Temperature $one, Temperature $other, int $seconds): bool
    {
        $scale = $this->jump->unit === TemperatureUnit::Fahrenheit ? 5 : 9;
        $difference = abs($other->ninetieths() - $one->ninetieths());

        // In sixtieths, so that the seconds between the readings count in whole numbers.
        return 60 * $difference > $scale * (60 * $this->jump->tenths + $this->perMinute->tenths * abs($seconds));
    }

    /** @return list<Doubt> */
    private function ofNumber(Temperature $reading, Instant $at, ?Temperature $before, ?Instant $beforeAt): array
    {
        $doubts = [];
        if ($reading->isBelow($this->coldest)) {
            $doubts[] = Doubt::TooCold;
        }
        if ($reading->isAbove($this->hottest)) {
            $doubts[] = Doubt::TooHot;
        }
        if ($before !== null && $beforeAt !== null && $this->isImpossible($before, $reading, Span::between($beforeAt, $at)->seconds)) {
            $doubts[] = Doubt::Jump;
        }

        return $doubts;
    }

    private function fitsInOtherUnit(Temperature $reading, Instant $at, ?Temperature $before, ?Instant $beforeAt): bool
    {
        $other = $reading->unit === TemperatureUnit::Fahrenheit ? TemperatureUnit::Celsius : TemperatureUnit::Fahrenheit;
        try {
            return $this->ofNumber(Temperature::ofTenths($reading->tenths, $other), $at, $before, $beforeAt) === [];
        } catch (MalformedTemperature) {
            return false;
        }
    }
}
