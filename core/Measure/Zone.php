<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** The time zone of a site, by its IANA name. */
final class Zone
{
    /** @var array<string, true>|null the names PHP knows, asked for once */
    private static ?array $known = null;

    private function __construct(public readonly string $name, private readonly \DateTimeZone $zone)
    {
    }

    /** @throws UnknownZone if there is no zone of this name */
    public static function named(string $name): self
    {
        self::$known ??= array_fill_keys(\DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true);
        if (!isset(self::$known[$name])) {
            throw UnknownZone::named($name);
        }

        return new self($name, new \DateTimeZone($name));
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
