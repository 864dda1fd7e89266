<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\EventType;

/** Stages that follow one another and are judged together. */
final readonly class Stretch
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

    public function has(EventType ...$types): bool
    {
        foreach ($this->stages as $stage) {
            if (\in_array($stage->type(), $types, true)) {
                return true;
            }
        }

        return false;
    }
}
