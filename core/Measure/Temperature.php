<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/**
 * A temperature as it was read: tenths of a degree in the unit of the thermometer.
 * It is kept and compared in that unit and never converted for a verdict.
 */
final readonly class Temperature
{
    /** Ninetieths of a degree Celsius above 0 °C: the scale on which both units are whole numbers. */
    public int $ninetieths;

    private function __construct(public int $tenths, public TemperatureUnit $unit)
    {
        $this->ninetieths = $unit === TemperatureUnit::Fahrenheit ? 5 * ($tenths - 320) : 9 * $tenths;
    }

    /** @throws MalformedTemperature if it lies outside −40…1000 °F or −40…540 °C */
    public static function ofTenths(int $tenths, TemperatureUnit $unit): self
    {
        if ($tenths < -400 || $tenths > $unit->greatestTenths()) {
            throw MalformedTemperature::outOfRange($tenths, $unit);
        }
        /** @var array<string, array<int, self>> $made there are few, and records are full of them: each is made once */
        static $made = [];

        return $made[$unit->value][$tenths] ??= new self($tenths, $unit);
    }

    /** @throws MalformedTemperature if it is out of range */
    public static function fahrenheit(string $number): self
    {
        return self::parse($number, TemperatureUnit::Fahrenheit);
    }

    /** @throws MalformedTemperature if it is out of range */
    public static function celsius(string $number): self
    {
        return self::parse($number, TemperatureUnit::Celsius);
    }

    /**
     * A typed temperature: "203", "203.5", "95c", "38,5 °C". Without a unit it is in the unit given.
     *
     * @throws MalformedTemperature if it is no number, has more than one decimal or is out of range
     */
    public static function parse(string $raw, TemperatureUnit $unit): self
    {
        if (preg_match('/^\s*([-−+]?)(\d{1,4})(?:[.,](\d+))?\s*°?\s*([fFcC]?)\s*$/u', $raw, $part) !== 1) {
            throw MalformedTemperature::notANumber($raw);
        }
        $decimals = $part[3];
        if (\strlen($decimals) > 1) {
            throw MalformedTemperature::tooFine($raw);
        }
        $tenths = 10 * (int) $part[2] + (int) $decimals;
        $stated = TemperatureUnit::tryFrom(strtoupper($part[4])) ?? $unit;

        return self::ofTenths($part[1] === '-' || $part[1] === '−' ? -$tenths : $tenths, $stated);
    }

    /** In degrees Celsius, whatever its unit; for display and forecasts, never for a verdict. */
    public function isHotterThan(self $other): bool
    {
        return $this->unit === $other->unit
            ? $this->tenths > $other->tenths
            : $this->ninetieths > $other->ninetieths;
    }

    public function isAtLeast(Threshold $threshold): bool
    {
        return $threshold->compare($this) >= 0;
    }

    public function isAbove(Threshold $threshold): bool
    {
        return $threshold->compare($this) > 0;
    }

    public function isAtMost(Threshold $threshold): bool
    {
        return $threshold->compare($this) <= 0;
    }

    public function isBelow(Threshold $threshold): bool
    {
        return $threshold->compare($this) < 0;
    }

    /** For reading only: rounded to a tenth, and never compared. */
    public function inOtherUnit(): self
    {
        $tenths =
            $this->unit === TemperatureUnit::Fahrenheit
                ? (($this->tenths - 320) * 5) / 9
                : ($this->tenths * 9) / 5 + 320;

        return new self((int) round($tenths), $this->unit->other());
    }

    /** A goal in the other unit, in whole degrees and never colder than it was given: "165 °F" is "74 °C". */
    public function goalInOtherUnit(): self
    {
        $degrees = $this->unit === TemperatureUnit::Fahrenheit
            ? (($this->tenths - 320) * 5) / 90
            : ($this->tenths * 9) / 50 + 32;

        return new self(10 * (int) ceil($degrees), $this->unit->other());
    }

    /** The number alone, as short as it is exact: "203", "203.5", "-4.1". */
    public function number(): string
    {
        $whole = intdiv(abs($this->tenths), 10);
        $tenth = abs($this->tenths) % 10;

        return ($this->tenths < 0 ? '-' : '').$whole.($tenth === 0 ? '' : '.'.$tenth);
    }
}
