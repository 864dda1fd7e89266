<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/**
 * When something happened, as people say it: "now", "10" for ten minutes ago, "1 h 30", "14:05", "yesterday 22:10", or
 * a whole date and time on the site's wall. Wherever something can be entered it is said in the same words and within
 * the same limit; nothing is bent.
 */
final readonly class EventTimeParser
{
    private const YEARS = 10;
    private const DAY = 86_400;

    public function __construct(
        private Now $now,
        private OfflineEntryTime $offline,
        private TranslatorInterface $translator,
    ) {
    }

    /**
     * @param Instant|null $near which of two moments is meant where a clock change repeats the time: the nearest to
     *     this, or to now
     *
     * @throws InvalidEventTime if it cannot be read, lies ahead of now, or longer ago than ten years
     */
    public function read(string $given, Site $site, ?Instant $near = null): Instant
    {
        $now = $this->offline->at() ?? $this->now->instant();
        $words = self::by24Hours(mb_strtolower(trim(mb_scrub($given))));
        $at = $this->moment($words, $site, $now, $near ?? $now) ?? throw InvalidEventTime::unreadable($given);
        if ($at->isAfter($now)) {
            throw InvalidEventTime::ahead($given);
        }
        if (Span::between($at, $now)->seconds > self::YEARS * 366 * self::DAY) {
            throw InvalidEventTime::tooLongAgo($given);
        }

        return $at;
    }

    /** A moment in the words that read() takes, to the second. */
    public function told(Instant $at, Site $site): string
    {
        return str_replace('T', ' ', WallTime::of($at, $site->zone()));
    }

    /** The default text of a time field. */
    public function now(): string
    {
        return $this->translator->trans('when.words.now');
    }

    /** "2:05 pm" as "14:05", also after a day; "12:30 am" is half past midnight. */
    private static function by24Hours(string $words): string
    {
        $clock = '/^(.*?)\b(0?[1-9]|1[0-2])(?:[:.]([0-5]\d))?\s*([ap])\.?m\.?$/u';

        return preg_match($clock, $words, $part) === 1
            ? \sprintf(
                '%s%02d:%s',
                $part[1],
                (int) $part[2] % 12 + ($part[4] === 'p' ? 12 : 0),
                $part[3] === '' ? '00' : $part[3],
            )
            : $words;
    }

    private function moment(string $words, Site $site, Instant $now, Instant $near): ?Instant
    {
        [$hour, $minute, $yesterday] = array_map($this->words(...), ['hour', 'minute', 'yesterday']);
        $ago = static fn (int $hours, int $minutes): Instant => $now->plus(Span::ofMinutes(-60 * $hours - $minutes));

        return match (true) {
            preg_match('/^'.$this->words('now').'$/u', $words) === 1 => $now,
            preg_match('/^[-−]?(\d{1,6})(?:\s*'.$minute.')?$/u', $words, $part) === 1 => $ago(0, (int) $part[1]),
            preg_match('/^[-−]?(\d{1,4})\s*'.$hour.'(?:\s*(\d{1,2})(?:\s*'.$minute.')?)?$/u', $words, $part)
                === 1 => $ago((int) $part[1], (int) ($part[2] ?? 0)),
            preg_match('/^([01]?\d|2[0-3])[:.]([0-5]\d)$/', $words, $part) === 1 => $this->onDay(
                0,
                $part[1],
                $part[2],
                $site,
                $now,
            ),
            preg_match('/^'.$yesterday.'\s+([01]?\d|2[0-3])[:.]([0-5]\d)$/u', $words, $part) === 1 => $this->onDay(
                -1,
                $part[1],
                $part[2],
                $site,
                $now,
            ),
            default => WallTime::parse($words, $site->zone(), $near),
        };
    }

    /** A pattern of the words for something, in the language of the page and in English. */
    private function words(string $key): string
    {
        $words = array_map(
            fn (string $language): string => preg_quote(
                mb_strtolower($this->translator->trans('when.words.'.$key, locale: $language)),
                '/',
            ),
            array_unique([$this->translator->getLocale(), 'en']),
        );

        return '(?:'.implode('|', $words).')';
    }

    private function onDay(int $days, string $hour, string $minute, Site $site, Instant $now): ?Instant
    {
        $day = LocalDate::ofInstant($now, $site->zone())->plusDays($days);

        return WallTime::parse(\sprintf('%s %02d:%s', $day->iso(), (int) $hour, $minute), $site->zone(), $now);
    }
}
