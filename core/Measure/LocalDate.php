<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** A date on the wall calendar of a site, as days since 1 January 1970. */
final readonly class LocalDate
{
    private function __construct(public int $days)
    {
    }

    /** A date as ISO 8601 writes it, 2026-11-25; null where it is none. */
    public static function ofIso(string $iso): ?self
    {
        if (
            preg_match('/^(\d{4})-(\d\d)-(\d\d)$/D', $iso, $part) !== 1
            || !checkdate((int) $part[2], (int) $part[3], (int) $part[1])
        ) {
            return null;
        }

        return self::ofInstant(Instant::parse($iso.'T00:00:00Z'), TimeZone::named('UTC'));
    }

    public static function ofInstant(Instant $instant, TimeZone $zone): self
    {
        return new self((int) floor(($instant->epoch + $zone->offsetAt($instant)) / 86400));
    }

    public function plusDays(int $days): self
    {
        return new self($this->days + $days);
    }

    /** The same day of a later or earlier month; where that month is shorter, its last day. */
    public function plusMonths(int $months): self
    {
        [$year, $month, $day] = array_map(intval(...), explode('-', $this->iso()));
        $month += 12 * $year - 1 + $months;
        $first = self::ofIso(\sprintf('%04d-%02d-01', intdiv($month, 12), ($month % 12) + 1));
        \assert($first !== null, 'every month has a first day');

        return $first->plusDays(min($day, (int) gmdate('t', 86400 * $first->days)) - 1);
    }

    public function daysSince(self $earlier): int
    {
        return $this->days - $earlier->days;
    }

    public function isAfter(self $other): bool
    {
        return $this->days > $other->days;
    }

    /** The first instant of this date at the site; where a clock change skips midnight, the first after it. */
    public function startIn(TimeZone $zone): Instant
    {
        $midnight = 86400 * $this->days;
        $starts = [];
        foreach ([$midnight - 86400, $midnight + 86400] as $nearby) {
            $start = Instant::ofEpoch($midnight - $zone->offsetAt(Instant::ofEpoch($nearby)));
            if (self::ofInstant($start, $zone)->days === $this->days) {
                $starts[] = $start->epoch;
            }
        }
        \assert($starts !== [], 'one of the offsets around a midnight is in force at it');

        return Instant::ofEpoch(min($starts));
    }

    /** ISO 8601: 2026-05-02. */
    public function iso(): string
    {
        return gmdate('Y-m-d', 86400 * $this->days);
    }
}
