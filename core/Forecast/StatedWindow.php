<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Measure\TemperatureUnit;

/** A window that a forecast stated at nine in ten, kept to compare with the outcome. */
final readonly class StatedWindow
{
    public const DONE = 'done';
    public const HOT = 'hot';

    /**
     * @param string $what DONE, HOT, or the rule of a gate
     * @param string|null $track whose it is; null for all that is on the heat
     * @param float $towards °C
     */
    private function __construct(
        public string $what,
        public ?string $track,
        public float $towards,
        public Crossing $window,
    ) {
    }

    /**
     * @param float $hotLimit °C
     *
     * @return list<self>
     */
    public static function all(?CookOutlook $cook, ?FallOutlook $fall, float $hotLimit, TemperatureUnit $unit): array
    {
        $stated = [];
        $done = $cook?->isRead() === true && $cook->targets === [] ? $cook->whole() : null;
        if ($cook !== null && $done !== null && !$cook->isReached) {
            $stated[] = new self(self::DONE, null, Point::celsius($cook->target), $done);
        }
        if ($fall?->hot !== null) {
            $stated[] = new self(self::HOT, null, $hotLimit, $fall->hot);
        }
        foreach ($fall->gates ?? [] as $gate) {
            if ($gate->crossing !== null) {
                $towards = Point::celsius($gate->towards->printedIn($unit));
                $stated[] = new self($gate->rule, $gate->track, $towards, $gate->crossing);
            }
        }

        return $stated;
    }
}
