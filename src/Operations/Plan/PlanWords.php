<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Attribute\AsTwigFilter;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Forecast\Chance;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;

/** How moments, lengths and chances of a plan are written: to five minutes, for nobody knows the minute. */
final readonly class PlanWords
{
    private const GRAIN = 300; // seconds

    public function __construct(
        private MeasureFormatter $figures,
        private TranslatorInterface $translator,
        private Now $now,
    ) {
    }

    /** "Sat 18:30" on the site's wall; with its date where that is not within a week. */
    #[AsTwigFilter('plan_time')]
    public function time(Instant $instant, Site $site): string
    {
        $near = self::grained($instant);
        $zone = $site->zone();
        $apart = LocalDate::ofInstant($near, $zone)->daysSince(LocalDate::ofInstant($this->now->instant(), $zone));
        $day = $apart >= -1 && $apart <= 6
            ? $this->weekday($near, $site)
            : $this->figures->date(LocalDate::ofInstant($near, $zone));

        return $day.' '.$this->figures->time($near, $zone);
    }

    /** "18:30", with its day where that is another than of a moment beside it. */
    #[AsTwigFilter('plan_time_beside')]
    public function timeBeside(Instant $instant, Site $site, Instant $beside): string
    {
        $zone = $site->zone();
        $isSameDay = LocalDate::ofInstant($instant, $zone)->days === LocalDate::ofInstant($beside, $zone)->days;

        return $isSameDay ? $this->figures->time(self::grained($instant), $zone) : $this->time($instant, $site);
    }

    /** As a field of a form takes it: "2026-11-28T18:30". */
    #[AsTwigFilter('wall_minute')]
    public function wallMinute(Instant $instant, Site $site): string
    {
        return substr(WallTime::of($instant, $site->zone()), 0, 16);
    }

    /** "Sat 28 Nov 2026". */
    #[AsTwigFilter('plan_day')]
    public function day(Instant $instant, Site $site): string
    {
        return $this->figures->date(LocalDate::ofInstant($instant, $site->zone()));
    }

    /** @param int|null $seconds null for never */
    #[AsTwigFilter('plan_length')]
    public function length(?int $seconds): string
    {
        if ($seconds === null) {
            return $this->translator->trans('plan.never');
        }
        $minutes = (int) (round(abs($seconds) / self::GRAIN) * (self::GRAIN / 60));

        return $minutes === 0 ? '0 min' : $this->figures->span(Span::ofMinutes($minutes));
    }

    /** @param float $celsius to a whole degree in the unit of the site */
    #[AsTwigFilter('plan_degrees')]
    public function degrees(float $celsius, Site $site): string
    {
        return $site->unit === TemperatureUnit::Celsius
            ? round($celsius).' °C'
            : round(32 + 1.8 * $celsius).' °F';
    }

    /** "3 in 10", of something bad. */
    #[AsTwigFilter('in_ten')]
    public function inTen(float $chance): string
    {
        return $this->translator->trans('cooling.chance', ['{count}' => Chance::tenthsOfBad($chance)]);
    }

    /** "9 in 10", of something good: rather one fewer. */
    #[AsTwigFilter('in_ten_good')]
    public function inTenGood(float $chance): string
    {
        return $this->translator->trans('cooling.chance', ['{count}' => 10 - Chance::tenthsOfBad(1.0 - $chance)]);
    }

    private static function grained(Instant $instant): Instant
    {
        return Instant::ofEpoch(self::GRAIN * (int) round($instant->epoch / self::GRAIN));
    }

    /** "Sat" on the site's wall. */
    public function weekday(Instant $instant, Site $site): string
    {
        $words = new \IntlDateFormatter($this->translator->getLocale(), pattern: 'EEE', timezone: 'UTC');

        return (string) $words->format($instant->epoch + $site->zone()->offsetAt($instant));
    }
}
