<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;

/** A moment as a form of a page shows and takes it: "2026-11-24T14:32:05" on the site's wall. */
final readonly class WallTime
{
    public static function of(Instant $instant, TimeZone $zone): string
    {
        return gmdate('Y-m-d\TH:i:s', $instant->epoch + $zone->offsetAt($instant));
    }

    /**
     * The moment nearest to another, where a clock change repeats the time; null where it is no time, or one that a
     * clock change skips.
     */
    public static function parse(string $given, TimeZone $zone, Instant $near): ?Instant
    {
        if (preg_match('/^(\d{4}-\d\d-\d\d)[Tt ](\d\d:\d\d)(:\d\d)?$/D', trim($given), $part) !== 1) {
            return null;
        }
        $wall = \DateTimeImmutable::createFromFormat(
            '!Y-m-d H:i:s',
            $part[1].' '.$part[2].($part[3] ?? ':00'),
            new \DateTimeZone('UTC'),
        );
        if ($wall === false || $wall->format('Y-m-d H:i') !== $part[1].' '.$part[2]) {
            return null;
        }
        $instants = $zone->instantsAt($wall->getTimestamp());
        usort(
            $instants,
            static fn (Instant $one, Instant $other): int => abs($one->epoch - $near->epoch)
                <=> abs($other->epoch - $near->epoch),
        );

        return $instants[0] ?? null;
    }
}
