<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Measure\Instant;

/** Collects what the checks find, the clocks that run, and the moments at which time alone may change a verdict. */
final class Findings
{
    /** @var list<Finding> */
    private array $findings = [];

    /** @var list<Clock> */
    private array $clocks = [];

    private ?Instant $nextTurn = null;

    public function __construct(private readonly Instant $asOf)
    {
    }

    public function add(Finding $finding): void
    {
        $this->findings[] = $finding;
    }

    public function clock(Clock $clock): void
    {
        $this->clocks[] = $clock;
    }

    /** Time alone may change a verdict once this moment has passed. */
    public function turnsAfter(Instant $moment): void
    {
        if (!$this->asOf->isAfter($moment) && ($this->nextTurn === null || $this->nextTurn->isAfter($moment))) {
            $this->nextTurn = $moment;
        }
    }

    /** @return list<Finding> */
    public function all(): array
    {
        return $this->findings;
    }

    /** @return list<Clock> */
    public function clocks(): array
    {
        return $this->clocks;
    }

    public function nextTurn(): ?Instant
    {
        return $this->nextTurn;
    }
}
