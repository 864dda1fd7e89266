<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

use Verjuicer\Core\Measure\Instant;

/** Collects findings, countdowns, and the moments at which time alone may change a verdict. */
final class Findings
{
    /** @var list<Finding> */
    private array $findings = [];

    /** @var list<Countdown> */
    private array $countdowns = [];

    private ?Instant $nextTurn = null;

    public function __construct(private readonly Instant $asOf)
    {
    }

    public function add(Finding $finding): void
    {
        $this->findings[] = $finding;
    }

    public function countdown(Countdown $countdown): void
    {
        $this->countdowns[] = $countdown;
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

    /** @return list<Countdown> */
    public function countdowns(): array
    {
        return $this->countdowns;
    }

    public function nextTurn(): ?Instant
    {
        return $this->nextTurn;
    }
}
