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
}
