<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** The time zone of a site, by its IANA name. */
final class TimeZone
{
    /** @var array<string, true>|null the names PHP knows, asked for once */
    private static ?array $known = null;

    private function __construct(public readonly string $name, private readonly \DateTimeZone $zone)
    {
    }

    /**
     * @param string $name as the IANA lists it; not "EST" or "CET", which PHP takes for an offset without a summer time
     *
     * @throws UnknownTimeZone if there is no zone of this name
     */
    public static function named(string $name): self
    {
        if (!isset(self::known()[$name])) {
            throw UnknownTimeZone::named($name);
        }

        return new self($name, new \DateTimeZone($name));
    }

    /**
     * As typed: in any case, without accents, or by its city alone: "zürich", "new york".
     *
     * @throws UnknownTimeZone if no zone is like it, or several are; it names the nearest
     */
    public static function parse(string $given): self
    {
        $wanted = self::plain($given);
        $found = [];
        foreach (array_keys(self::known()) as $name) {
            if (self::plain($name) === $wanted) {
                return self::named($name);
            }
            $parts = explode('/', $name);
            if (self::plain(end($parts)) === $wanted) {
                $found[] = $name;
            }
        }
        if (\count($found) === 1) {
            return self::named($found[0]);
        }

        throw UnknownTimeZone::named($given, $found === [] ? self::nearest($wanted) : $found);
    }

    /** @return array<string, true> */
    private static function known(): array
    {
        return self::$known ??= array_fill_keys(\DateTimeZone::listIdentifiers(), true);
    }

    private static function plain(string $name): string
    {
        $letters = transliterator_transliterate('Any-Latin; Latin-ASCII; Lower()', trim($name));

        return str_replace([' ', '-'], '_', $letters === false ? strtolower($name) : $letters);
    }

    /** @return list<string> the three whose city is most like it */
    private static function nearest(string $wanted): array
    {
        $likeness = [];
        foreach (array_keys(self::known()) as $name) {
            $parts = explode('/', $name);
            $likeness[$name] = min(
                levenshtein(self::plain($name), $wanted),
                levenshtein(self::plain(end($parts)), $wanted),
            );
        }
        asort($likeness);

        return \array_slice(array_keys($likeness), 0, 3);
    }

    /** Seconds to add to UTC for the time on the site's wall at this moment. */
    public function offsetAt(Instant $instant): int
    {
        $transitions = $this->zone->getTransitions($instant->epoch, $instant->epoch);

        return $transitions === false || $transitions === [] ? 0 : $transitions[0]['offset'];
    }

    /**
     * The moments at which the site's wall shows this time: none where a clock change skips it, two where one repeats
     * it.
     *
     * @param int $wall seconds from 1 January 1970 00:00 on the wall
     *
     * @return list<Instant> the earlier first
     */
    public function instantsAt(int $wall): array
    {
        $instants = [];
        foreach ([$wall - 86400, $wall + 86400] as $nearby) {
            $epoch = $wall - $this->offsetAt(Instant::ofEpoch($nearby));
            if ($epoch + $this->offsetAt(Instant::ofEpoch($epoch)) === $wall) {
                $instants[$epoch] = Instant::ofEpoch($epoch);
            }
        }
        ksort($instants);

        return array_values($instants);
    }
}
