<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** A moment in UTC, to the second. */
final readonly class Instant
{
    private const RFC3339 =
        '/^(\d{4})-(\d\d)-(\d\d)[Tt]([01]\d|2[0-3]):([0-5]\d):([0-5]\d)(?:[Zz]|([+-])([01]\d|2[0-3]):([0-5]\d))$/D';

    /** Days from 1 March to the first of each month. */
    private const DAYS_SINCE_MARCH = [
        '03' => 0,
        '04' => 31,
        '05' => 61,
        '06' => 92,
        '07' => 122,
        '08' => 153,
        '09' => 184,
        '10' => 214,
        '11' => 245,
        '12' => 275,
        '01' => 306,
        '02' => 337,
    ];

    private function __construct(public int $epoch)
    {
    }

    public static function ofEpoch(int $seconds): self
    {
        return new self($seconds);
    }

    /** @throws MalformedInstant if it is not RFC 3339 to the second with a zone, or names a day that does not exist */
    public static function parse(string $rfc3339): self
    {
        if (preg_match(self::RFC3339, $rfc3339, $part) !== 1) {
            throw MalformedInstant::notRfc3339($rfc3339);
        }
        $year = (int) $part[1];
        $month = $part[2];
        // Every month has 28 days: only beyond them the calendar is asked.
        if (
            !isset(self::DAYS_SINCE_MARCH[$month])
            || $part[3] === '00'
            || ($part[3] > '28' && !checkdate((int) $month, (int) $part[3], max(1, $year)))
        ) {
            throw MalformedInstant::notRfc3339($rfc3339);
        }
        // The proleptic Gregorian calendar, its years counted from March so that the leap day comes last.
        $marchYear = $month > '02' ? $year : $year - 1;
        $days =
            365 * $marchYear
            + ($marchYear >> 2)
            - (int) floor($marchYear / 100)
            + (int) floor($marchYear / 400)
            + self::DAYS_SINCE_MARCH[$month]
            + (int) $part[3]
            - 719469;
        $epoch = 86400 * $days + 3600 * (int) $part[4] + 60 * (int) $part[5] + (int) $part[6];
        if (isset($part[7], $part[8], $part[9])) {
            $offset = 3600 * (int) $part[8] + 60 * (int) $part[9];
            $epoch += $part[7] === '-' ? $offset : -$offset;
        }

        return new self($epoch);
    }

    public function plus(Span $span): self
    {
        return new self($this->epoch + $span->seconds);
    }

    public function isAfter(self $other): bool
    {
        return $this->epoch > $other->epoch;
    }

    /** RFC 3339 in UTC: 2026-05-02T17:00:00Z. */
    public function rfc3339(): string
    {
        return gmdate('Y-m-d\TH:i:s\Z', $this->epoch);
    }
}
