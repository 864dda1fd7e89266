<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Wording;

use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Attribute\AsTwigFilter;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\EventText;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\PressureUnit;
use Verjuicer\App\Platform\Wording\UnitPreferences;
use Verjuicer\App\Platform\Wording\ZoneText;
use Verjuicer\App\Site\Site\OfflineEntryTime;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\DangerZone;
use Verjuicer\Core\Assess\Evidence\NeededProcedures;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Procedure;

/** Figures, in templates. */
final readonly class FormatExtension
{
    public function __construct(
        private MeasureFormatter $figures,
        private FindingText $findings,
        private EventText $events,
        private ZoneText $zone,
        private Now $now,
        private UnitPreferences $habits,
        private TranslatorInterface $translator,
    ) {
    }

    /** An id for an entry of a page without script; with it, too. */
    #[AsTwigFunction('new_id')]
    public function newId(): string
    {
        return Uuid::v7()->toRfc4122();
    }

    /**
     * Readings and times that examples are written with, as the kitchen writes them.
     *
     * @return array<string, string> values of a sentence
     */
    #[AsTwigFunction('examples')]
    public function examples(): array
    {
        $readings = $this->habits->unit() === TemperatureUnit::Celsius
            ? ['{read}' => '95', '{flat}' => '92']
            : ['{read}' => '203', '{flat}' => '198'];

        return $readings + [
            '{time}' => $this->figures->timeOfDay('14:05'),
            '{night}' => $this->figures->timeOfDay('22:10'),
        ];
    }

    /** "06:00" as "6:00 am". */
    #[AsTwigFilter('time_of_day')]
    public function timeOfDay(string $time): string
    {
        return $this->figures->timeOfDay($time);
    }

    #[AsTwigFunction('moment')]
    public function moment(): Instant
    {
        return $this->now->instant();
    }

    #[AsTwigFilter('sentence')]
    public function sentence(Finding $finding, Assessment $assessment): string
    {
        return $this->findings->sentence($finding, $assessment);
    }

    /** @return list<string> */
    #[AsTwigFilter('options')]
    public function options(Finding $finding, Assessment $assessment): array
    {
        return $this->findings->options($finding, $assessment);
    }

    #[AsTwigFilter('zone_words')]
    public function zoneWords(DangerZone $zone): string
    {
        return $this->zone->of($zone);
    }

    #[AsTwigFilter('zone_help')]
    public function zoneHelp(Assessment $assessment): string
    {
        return $this->zone->help($assessment);
    }

    /** @return list<Procedure> written procedures in force that a batch needs */
    #[AsTwigFilter('procedures')]
    public function procedures(Assessment $assessment): array
    {
        return NeededProcedures::followedBy(
            $assessment->record->site,
            $assessment->record->product,
            $assessment->timeline->events,
        );
    }

    /** @param int $pieces of the batch it is of */
    #[AsTwigFilter('event_text')]
    public function eventText(Event $event, int $pieces, Site $site): string
    {
        $reason = $event->replaces === null || $event->detail instanceof Voided ? $event->reason : null;

        $told = $this->events->of($event->detail, $reason, $pieces, $site->zone(), $event->imported);

        return ($event->extensions[OfflineEntryTime::FIELD] ?? false) === true
            ? $told.' · '.$this->translator->trans('event.made_offline')
            : $told;
    }

    /** "2/flat" in words. */
    #[AsTwigFilter('track')]
    public function track(string $track, int $pieces): string
    {
        [$piece, $spot] = explode('/', $track, 2) + [1 => ''];

        return $this->events->track((int) $piece, $spot, $pieces);
    }

    #[AsTwigFilter('seconds')]
    public function seconds(int $seconds): string
    {
        return $this->figures->span(Span::ofSeconds($seconds));
    }

    #[AsTwigFilter('degrees')]
    public function degrees(Temperature $temperature): string
    {
        return $this->figures->temperature($temperature);
    }

    /** A limit as the code prints it in the site's unit. */
    #[AsTwigFilter('limit')]
    public function limit(Threshold $threshold, Site $site): string
    {
        return $this->figures->threshold($threshold, $site->unit);
    }

    #[AsTwigFilter('weight')]
    public function weight(int|float $grams): string
    {
        return $this->figures->weight($grams);
    }

    /** Meters, as "2 in" or "5 cm", rounded down: for depths that food may have at most. */
    #[AsTwigFilter('depth_limit')]
    public function depthLimit(float $meters): string
    {
        return $this->figures->lengthLimit(1000 * $meters);
    }

    /** Millimeters, as "2 in" or "5.1 cm". */
    #[AsTwigFilter('length_of')]
    public function lengthOf(float $millimeters): string
    {
        return $this->figures->length($millimeters);
    }

    /** Meters above the sea. */
    #[AsTwigFilter('elevation')]
    public function elevation(int $meters): string
    {
        return $this->figures->elevation($meters);
    }

    #[AsTwigFilter('pressure')]
    public function pressure(int $hectopascals): string
    {
        return $this->figures->pressure($hectopascals);
    }

    #[AsTwigFilter('capacity')]
    public function capacity(int|float $kilograms): string
    {
        return $this->figures->capacity((int) $kilograms);
    }

    #[AsTwigFilter('dose')]
    public function dose(int $gramsPerKilogram): string
    {
        return $this->figures->dose($gramsPerKilogram);
    }

    /** Hundredths per kilogram as the price of the unit of weight here. */
    #[AsTwigFilter('unit_price')]
    public function unitPrice(int $centsPerKilogram): string
    {
        return $this->money((int) round($centsPerKilogram * $this->habits->weightUnit()->grams() / 1000));
    }

    /** The unit of a number typed without one: "lb", "kg". */
    #[AsTwigFunction('weight_unit')]
    public function weightUnit(): string
    {
        return $this->habits->weightUnit()->value;
    }

    /** @return array<string, string> the languages of the interface, each in its own words */
    #[AsTwigFunction('language_names')]
    public function languageNames(): array
    {
        return array_combine(
            Language::codes(),
            array_map(static fn (Language $one): string => $one->name(), Language::cases()),
        );
    }

    /** The unit of a length typed without one: "in", "cm". */
    #[AsTwigFunction('length_unit')]
    public function lengthUnit(): string
    {
        return $this->habits->lengthUnit()->value;
    }

    /** The unit of temperatures that the kitchen does not work in: "C", "F". */
    #[AsTwigFunction('other_temperature_unit')]
    public function otherTemperatureUnit(): string
    {
        return $this->habits->unit()->other()->value;
    }

    /** The unit of an air pressure typed without one: "inHg", "hPa". */
    #[AsTwigFunction('pressure_unit')]
    public function pressureUnit(): string
    {
        return PressureUnit::besides($this->habits->lengthUnit())->value;
    }

    /** The unit of an elevation typed without one: "ft", "m". */
    #[AsTwigFunction('elevation_unit')]
    public function elevationUnit(): string
    {
        return $this->habits->lengthUnit()->ofElevation();
    }

    #[AsTwigFilter('money')]
    public function money(int $cents): string
    {
        return number_format($cents / 100, 2, '.', ' ');
    }

    #[AsTwigFilter('clock')]
    public function clock(Instant $instant, Site $site): string
    {
        return $this->figures->instant($instant, $site->zone(), $this->now->instant());
    }

    /** The time alone within half a day of now: it cannot be mistaken for another day's. */
    #[AsTwigFilter('near')]
    public function near(Instant $instant, Site $site): string
    {
        $now = $this->now->instant();

        return abs($instant->epoch - $now->epoch) < 12 * 3600
            ? $this->figures->time($instant, $site->zone())
            : $this->figures->instant($instant, $site->zone(), $now);
    }

    #[AsTwigFilter('day')]
    public function day(Instant $instant, Site $site): string
    {
        return $this->figures->date(LocalDate::ofInstant($instant, $site->zone()));
    }

    /** The time alone, next to its day. */
    #[AsTwigFilter('time_of')]
    public function timeOf(Instant $instant, Site $site): string
    {
        return $this->figures->time($instant, $site->zone());
    }

    /** Seconds since 1970 as a moment. */
    #[AsTwigFilter('moment_of')]
    public function momentOf(?int $epoch): Instant
    {
        return Instant::ofEpoch($epoch ?? 0);
    }

    #[AsTwigFilter('date_words')]
    public function dateWords(LocalDate $date): string
    {
        return $this->figures->date($date);
    }

    #[AsTwigFilter('span')]
    public function span(Span $span): string
    {
        return $this->figures->span($span);
    }

    /** "in 28 min", "now", "1 h 5 min late". */
    #[AsTwigFilter('due')]
    public function due(Instant $deadline): string
    {
        $left = $deadline->epoch - $this->now->instant()->epoch;

        return match (true) {
            $left >= 60 => $this->translator->trans('board.in', ['{time}' => $this->apart($deadline)]),
            $left > -60 => $this->translator->trans('board.due_now'),
            default => $this->translator->trans('board.late', ['{time}' => $this->apart($deadline)]),
        };
    }

    /** How long between a moment and now, to the minute, either way. */
    #[AsTwigFilter('apart')]
    public function apart(Instant $instant): string
    {
        $minutes = intdiv(abs($instant->epoch - $this->now->instant()->epoch), 60);

        return $minutes === 0 ? '0 min' : $this->figures->span(Span::ofMinutes($minutes));
    }
}
