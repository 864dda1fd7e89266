<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Weight;

/** Which rows of the roast table are low, and the oven conditions under which they are open. */
final readonly class LowRoastRows
{
    /**
     * @param Span $heatUp how long after its start a pit reading of a cook does not count
     * @param string $interpretation our reading of the code, to be named with the rule set
     * @param non-empty-list<OvenCondition> $conditions
     */
    private function __construct(
        public string $citation,
        public Threshold $below,
        public Span $heatUp,
        public string $interpretation,
        private array $conditions,
    ) {
    }

    public static function read(RuleFields $fields): self
    {
        $split = Weight::ofGrams($fields->whole('weight_split_grams'));
        $conditions = [];
        foreach ($fields->objects('ovens') as $one) {
            $conditions[] = OvenCondition::read($one, $split);
        }
        if ($conditions === []) {
            $fields->wrong('ovens', 'must hold at least one condition');
            $fields->refuse();
        }
        \assert($conditions !== [], 'else it was refused');

        return new self(
            $fields->citation(),
            $fields->part('below')->threshold(),
            $fields->span('heat_up_seconds'),
            $fields->text('interpretation'),
            $conditions,
        );
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
