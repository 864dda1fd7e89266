<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

/** The time zone of a site, by its IANA name. */
final readonly class Zone
{
    private function __construct(public string $name, private \DateTimeZone $zone)
    {
    }

    /** @throws UnknownZone if there is no zone of this name */
    public static function named(string $name): self
    {
        if (!\in_array($name, \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)) {
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
