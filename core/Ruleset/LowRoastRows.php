<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Weight;

/** Which rows of the roast table are low, and the oven conditions under which they are open. */
final readonly class LowRoastRows
{
    /** @param non-empty-list<OvenCondition> $conditions */
    public function __construct(public string $citation, private Threshold $below, private array $conditions)
    {
    }

    public function includes(CookingRow $row): bool
    {
        return $row->temperature->compareTo($this->below) < 0;
    }

    public function areOpenFor(Oven $oven, Temperature $set, ?Weight $raw): bool
    {
        foreach ($this->conditions as $condition) {
            if ($condition->isMetBy($oven, $set, $raw)) {
                return true;
            }
        }

        return false;
    }
}
