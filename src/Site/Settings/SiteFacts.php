<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\Core\Measure\TemperatureUnit;

/** The facts of a site that a record contains and is judged by, as in force at one moment. */
final readonly class SiteFacts
{
    /** @param array<string, int> $houseLimits seconds, by the names of `StricterLimits` */
    public function __construct(
        public string $name,
        public string $timezone,
        public TemperatureUnit $unit,
        public ?int $elevationM,
        public string $ruleSet,
        public array $houseLimits,
    ) {
    }
}
