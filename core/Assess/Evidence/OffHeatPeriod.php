<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Measure\Instant;

/** Stages that follow one another and are judged together. */
final readonly class OffHeatPeriod
{
    public Instant $from;

    public Instant $to;

    public bool $isOpen;

    public int $order;

    public int $endOrder;

    /** @param non-empty-list<Stage> $stages */
    public function __construct(public array $stages)
    {
        $last = $stages[\count($stages) - 1];
        $this->from = $stages[0]->from;
        $this->to = $last->to;
        $this->isOpen = $last->isOpen;
        $this->order = $stages[0]->order;
        $this->endOrder = $last->endOrder;
    }

    /** @param class-string<Detail> ...$kinds */
    public function has(string ...$kinds): bool
    {
        foreach ($this->stages as $stage) {
            if ($stage->is(...$kinds)) {
                return true;
            }
        }

        return false;
    }

    public function last(): Stage
    {
        return $this->stages[\count($this->stages) - 1];
    }
}
