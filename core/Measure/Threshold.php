<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/**
 * A limit as the code prints it: in °F and in °C, or in one of them only.
 * A temperature is compared in its own unit; where the code prints only the other, the comparison is exact, in
 * integers.
 */
final readonly class Threshold
{
    private function __construct(private ?Temperature $fahrenheit, private ?Temperature $celsius)
    {
    }

    public static function ofPair(Temperature $fahrenheit, Temperature $celsius): self
    {
        return new self($fahrenheit, $celsius);
    }

    public static function ofOne(Temperature $printed): self
    {
        return $printed->unit === TemperatureUnit::Fahrenheit ? new self($printed, null) : new self(null, $printed);
    }

    /** @return list<Temperature> as the code prints it: one or two temperatures, °F first */
    public function printed(): array
    {
        return array_values(
            array_filter([$this->fahrenheit, $this->celsius], static fn (?Temperature $one): bool => $one !== null),
        );
    }

    /** @return int below, at or above the limit: −1, 0 or 1 */
    public function compare(Temperature $temperature): int
    {
        if ($temperature->unit === TemperatureUnit::Fahrenheit) {
            return $this->fahrenheit !== null
                ? $temperature->tenths <=> $this->fahrenheit->tenths
                : $temperature->ninetieths <=> $this->printedIn(TemperatureUnit::Fahrenheit)->ninetieths;
        }

        return $this->celsius !== null
            ? $temperature->tenths <=> $this->celsius->tenths
            : $temperature->ninetieths <=> $this->printedIn(TemperatureUnit::Celsius)->ninetieths;
    }

    /** The limit in this unit where the code prints it so, else as the code prints it. */
    public function printedIn(TemperatureUnit $unit): Temperature
    {
        $printed =
            $unit === TemperatureUnit::Fahrenheit
                ? $this->fahrenheit ?? $this->celsius
                : $this->celsius ?? $this->fahrenheit;
        \assert($printed !== null, 'both factories give at least one');

        return $printed;
    }

    /** The limit in this unit, or as the code prints it, in ninetieths of a degree Celsius. */
    public function levelIn(TemperatureUnit $unit): int
    {
        return $this->printedIn($unit)->ninetieths;
    }

    /** Orders two limits of one rule set, by °F where both print it. */
    public function compareTo(self $other): int
    {
        return $this->fahrenheit !== null && $other->fahrenheit !== null
            ? $this->fahrenheit->tenths <=> $other->fahrenheit->tenths
            : $this->printedIn(TemperatureUnit::Celsius)->ninetieths
                    <=> $other->printedIn(TemperatureUnit::Celsius)->ninetieths;
    }
}
