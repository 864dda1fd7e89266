<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Zone;

/** Writes measures as people read them; the unit and the clock are the site's. */
final readonly class Figures
{
    public function __construct(private ?ShownUnits $shown = null, private ?Habits $habits = null)
    {
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
    public function instant(Instant $instant, Zone $zone, Instant $told): string
    {
        $isSameDay = LocalDate::ofInstant($instant, $zone)->days === LocalDate::ofInstant($told, $zone)->days;

        $clock = $this->clock();

        return gmdate($isSameDay ? $clock : 'D j M '.$clock, $instant->epoch + $zone->offsetAt($instant));
    }

    /** The time on the site's wall alone, where a picture shows the day. */
    public function time(Instant $instant, Zone $zone): string
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

    private function clock(): string
    {
        return $this->habits?->clock() === ClockFace::Hours12 ? 'g:i a' : 'H:i';
    }

    /** "2.3 kg"; grams under a kilogram. "5 lb 1.1 oz" where the site weighs in pounds. */
    public function weight(int $grams): string
    {
        return $this->habits?->weightUnit() === WeightUnit::Pounds ? self::pounds($grams) : self::kilograms($grams);
    }

    /** To a tenth of an ounce, finer than a gram shows: what was typed in ounces reads as it was typed. */
    private static function pounds(int $grams): string
    {
        $tenths = (int) round(10 * abs($grams) / 28.349523125);
        $pounds = intdiv($tenths, 160);
        $ounces = $tenths % 160;
        $words = [$pounds === 0 ? '' : $pounds.' lb', $ounces === 0 && $pounds > 0 ? '' : $ounces / 10 .' oz'];

        return ($grams < 0 ? '−' : '').trim(implode(' ', $words));
    }

    private static function kilograms(int $grams): string
    {
        return abs($grams) < 1000
            ? $grams.' g'
            : rtrim(rtrim(number_format($grams / 1000, 2, '.', ''), '0'), '.').' kg';
    }

    public function date(LocalDate $date): string
    {
        return gmdate('D j M Y', 86400 * $date->days);
    }
}
