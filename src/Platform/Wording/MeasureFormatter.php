<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\TimeZone;

/** Writes measures as people read them; the unit and the clock are the site's. */
final readonly class MeasureFormatter
{
    public function __construct(
        private ?DualUnitDisplay $shown = null,
        private ?UnitPreferences $habits = null,
        private ?LocaleSwitcher $locale = null,
    ) {
    }

    /** "203 °F"; "203 °F (95 °C)" to who wants both. */
    public function temperature(Temperature $temperature): string
    {
        return self::plain($temperature)
            .($this->shown?->areBoth() === true ? ' ('.self::plain($temperature->inOtherUnit()).')' : '');
    }

    /** A limit as the code prints it in a unit; to who wants both, in each. */
    public function threshold(Threshold $threshold, TemperatureUnit $unit): string
    {
        $printed = $threshold->printedIn($unit);
        $other = $threshold->printedIn($printed->unit->other());
        $isBoth = $this->shown?->areBoth() === true && $other->unit !== $printed->unit;

        return self::plain($printed).($isBoth ? ' ('.self::plain($other).')' : '');
    }

    private static function plain(Temperature $temperature): string
    {
        return $temperature->number().' °'.$temperature->unit->value;
    }

    /** "15 s", "12 min", "1 h 45 min"; seconds only under two minutes, rounded down beyond. */
    public function span(Span $span): string
    {
        $seconds = abs($span->seconds);
        if ($seconds < 120) {
            return $seconds.' s';
        }
        $hours = intdiv($seconds, 3600);
        $minutes = intdiv($seconds, 60) % 60;
        $rest = $seconds % 60;
        if ($hours >= 48) {
            return intdiv($hours, 24).' d'.($hours % 24 === 0 ? '' : ' '.$hours % 24 .' h');
        }

        return trim(
            ($hours === 0 ? '' : $hours.' h ')
                .($minutes === 0 ? '' : $minutes.' min')
                .($hours === 0 && $rest !== 0 ? ' '.$rest.' s' : ''),
        );
    }

    /** The time on the site's wall, with its date where that is not the day of the moment it is told. */
    public function instant(Instant $instant, TimeZone $zone, Instant $told): string
    {
        $isSameDay = LocalDate::ofInstant($instant, $zone)->days === LocalDate::ofInstant($told, $zone)->days;

        $wall = $instant->epoch + $zone->offsetAt($instant);
        $time = gmdate($this->clock(), $wall);

        if ($isSameDay) {
            return $time;
        }
        $day = $this->day($wall, 'D j M', 'D M j', 'EEE d MMM');

        return $this->language()->timeOnDay($time, $day);
    }

    /** The time on the site's wall alone, where a picture shows the day. */
    public function time(Instant $instant, TimeZone $zone): string
    {
        return gmdate($this->clock(), $instant->epoch + $zone->offsetAt($instant));
    }

    /**
     * A full hour on the axis of a picture: "14", "2p".
     *
     * @param int $wall seconds on the site's wall
     */
    public function hour(int $wall): string
    {
        return $this->habits?->clock() === ClockFace::Hours12
            ? rtrim(gmdate('ga', $wall), 'm')
            : gmdate('G', $wall);
    }

    /** @param string $time "06:00", "18:30:00" */
    public function timeOfDay(string $time): string
    {
        [$hour, $minute] = explode(':', $time);

        return gmdate($this->clock(), 3600 * (int) $hour + 60 * (int) $minute);
    }

    private function clock(): string
    {
        return $this->habits?->clock() === ClockFace::Hours12 ? 'g:i a' : 'H:i';
    }

    /** "2.3 kg"; grams under a kilogram. "5 lb 1.1 oz" where the site weighs in pounds. */
    public function weight(int|float $grams): string
    {
        return $this->habits?->weightUnit() === WeightUnit::Pounds ? self::pounds($grams) : self::kilograms($grams);
    }

    /** To a tenth of an ounce, so that typed ounces read as typed. A part of a gram, to a hundredth. */
    private static function pounds(int|float $grams): string
    {
        $sign = $grams < 0 ? '−' : '';
        $ounces = abs($grams) / WeightUnit::GRAMS_IN['oz'];
        if (\is_float($grams) && $ounces < 4) {
            return $sign.self::decimal($ounces, 2).' oz';
        }
        $tenths = (int) round(10 * $ounces);
        $pounds = intdiv($tenths, 160);
        $left = $tenths % 160;
        $words = [$pounds === 0 ? '' : $pounds.' lb', $left === 0 && $pounds > 0 ? '' : $left / 10 .' oz'];

        return $sign.trim(implode(' ', $words));
    }

    private static function kilograms(float $grams): string
    {
        return abs($grams) < 1000
            ? self::decimal($grams, 1).' g'
            : self::decimal($grams / 1000, 2).' kg';
    }

    private static function decimal(float $number, int $places): string
    {
        $written = number_format($number, $places, '.', '');

        return str_contains($written, '.') ? rtrim(rtrim($written, '0'), '.') : $written;
    }

    /** "2 in", "5.1 cm": to a tenth. */
    public function length(float $millimeters): string
    {
        return self::decimal($this->inUnitOfLength($millimeters), 1).' '.$this->lengthUnit()->value;
    }

    /** A length that something may have at most, rounded down to a tenth. */
    public function lengthLimit(float $millimeters): string
    {
        $tenths = floor(10 * $this->inUnitOfLength($millimeters) + 1e-6);

        return self::decimal($tenths / 10, 1).' '.$this->lengthUnit()->value;
    }

    /** "1,610 m"; "5,280 ft" to the nearest ten: it is stored in whole meters. */
    public function elevation(int $meters): string
    {
        return $this->lengthUnit() === LengthUnit::Inches
            ? number_format(10 * round($meters * 1000 / (10 * LengthUnit::MILLIMETERS_IN['ft']))).' ft'
            : number_format($meters).' m';
    }

    /** The capacity of a pit: "90 kg"; pounds to the nearest five, because whole kilograms are stored. */
    public function capacity(int $kilograms): string
    {
        return $this->habits?->weightUnit() === WeightUnit::Pounds
            ? 5 * (int) round(1000 * $kilograms / (5 * WeightUnit::GRAMS_IN['lb'])).' lb'
            : $kilograms.' kg';
    }

    /** Of the air: "1013 hPa", "29.92 inHg". */
    public function pressure(int $hectopascals): string
    {
        $unit = PressureUnit::besides($this->lengthUnit());

        return $unit === PressureUnit::Hectopascals
            ? "$hectopascals hPa"
            : self::decimal($hectopascals / PressureUnit::HECTOPASCALS_IN['inhg'], 2).' inHg';
    }

    /** How much goes on meat: "25 g per kg", "0.4 oz per lb" of meat. */
    public function dose(int $gramsPerKilogram): string
    {
        return $this->habits?->weightUnit() === WeightUnit::Pounds
            ? self::decimal($gramsPerKilogram * 16 / 1000, 3).' oz/lb'
            : $gramsPerKilogram.' g/kg';
    }

    private function inUnitOfLength(float $millimeters): float
    {
        return $millimeters / LengthUnit::MILLIMETERS_IN[$this->lengthUnit()->value];
    }

    private function lengthUnit(): LengthUnit
    {
        return $this->habits?->lengthUnit() ?? LengthUnit::Centimeters;
    }

    private function language(): Language
    {
        return Language::tryFrom($this->locale?->getLocale() ?? '') ?? Language::English;
    }

    public function date(LocalDate $date): string
    {
        return $this->day(86400 * $date->days, 'D j M Y', 'D M j, Y', 'EEE d MMM y');
    }

    /**
     * @param int $wall seconds on the wall
     * @param string $english as PHP writes a date, which is fast; the day before the month
     * @param string $us the same where a kitchen works in inches: the month before the day
     * @param string $pattern as ICU does, for every other language
     */
    private function day(int $wall, string $english, string $us, string $pattern): string
    {
        if ($this->language() === Language::English) {
            return gmdate($this->lengthUnit() === LengthUnit::Inches ? $us : $english, $wall);
        }
        $formatter = new \IntlDateFormatter($this->language()->value, timezone: 'UTC', pattern: $pattern);

        return (string) $formatter->format($wall);
    }
}
