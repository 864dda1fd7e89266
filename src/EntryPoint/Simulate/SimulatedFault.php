<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

/** A fault in a simulated kitchen: its kind, place, start and length. */
final readonly class SimulatedFault
{
    private function __construct(
        public SimulatedFaultName $name,
        public string $what,
        public int $from,
        public int $until,
    ) {
    }

    /**
     * "dead-oven:Drum@02:10", "door-open:walk-in+5/40": at a wall time, or minutes from now; for so many minutes.
     *
     * @param int $now seconds since 1970
     *
     * @return self|null null where it cannot be read
     */
    public static function read(string $said, int $now, \DateTimeZone $zone): ?self
    {
        $form = '/^([a-z-]+)(?::([^@+\/]+))?(?:@([0-2]\d:[0-5]\d)|\+(\d{1,4}))?(?:\/(\d{1,4}))?$/D';
        if (preg_match($form, $said, $part) !== 1) {
            return null;
        }
        $name = SimulatedFaultName::tryFrom($part[1]);
        if ($name === null) {
            return null;
        }
        $from = $now + 60 * (int) ($part[4] ?? 0);
        if (($part[3] ?? '') !== '') {
            $local = (new \DateTimeImmutable('@'.$now))->setTimezone($zone);
            [$hour, $minute] = array_map(intval(...), explode(':', $part[3]));
            $at = $local->setTime($hour, $minute);
            $from = ($at < $local ? $at->modify('+1 day') : $at)->getTimestamp();
        }
        $minutes = ($part[5] ?? '') === '' ? 24 * 60 : (int) $part[5];

        return new self($name, $part[2] ?? '', $from, $from + 60 * $minutes);
    }

    /**
     * Whether one of them is on, of this thing where one is named.
     *
     * @param list<self> $faults
     */
    public static function isAnyOn(array $faults, SimulatedFaultName $name, int $now, string $what = ''): bool
    {
        foreach ($faults as $fault) {
            if ($fault->name === $name && $fault->isOn($now) && ($what === '' || $fault->isOf($what))) {
                return true;
            }
        }

        return false;
    }

    public function isOn(int $now): bool
    {
        return $now >= $this->from && $now < $this->until;
    }

    public function isOf(string $what): bool
    {
        return $this->what === '' || strcasecmp($this->what, $what) === 0;
    }
}
