<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\RuleSet;

/** The bands into which all limits of a rule set cut the scale: within one, no limit is crossed. */
final readonly class LimitBands
{
    /** @param array<string, list<int>> $levels by unit: the limits as printed in it, in ninetieths, rising */
    private function __construct(private array $levels)
    {
    }

    public static function of(RuleSet $rules): self
    {
        $levels = [];
        foreach (TemperatureUnit::cases() as $unit) {
            $ofUnit = array_map(
                static fn (Threshold $limit): int => $limit->printedIn($unit)->ninetieths,
                $rules->thresholds(),
            );
            sort($ofUnit);
            $levels[$unit->value] = array_values(array_unique($ofUnit));
        }

        return new self($levels);
    }

    /** Whether both lie on the same side of every limit, each by the figure of its own unit. */
    public function areOne(Temperature $one, Temperature $other): bool
    {
        return $one->unit === $other->unit && $this->band($one) === $this->band($other);
    }

    /** Even between two limits, odd at one. */
    private function band(Temperature $temperature): int
    {
        $level = $temperature->ninetieths;
        $band = 0;
        foreach ($this->levels[$temperature->unit->value] as $limit) {
            if ($level < $limit) {
                break;
            }
            $band += $level === $limit ? 1 : 2;
        }

        return $band;
    }
}
