<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Verjuicer\App\Projection\Lane\Lane;

/** One line of what is due next: one thing, of one batch or of portions of one batch that it is the same for. */
final readonly class DueLine
{
    /**
     * @param non-empty-list<Lane> $lanes
     * @param Due|null $forecast of the same limit
     */
    public function __construct(public Due $due, public array $lanes, public ?Due $forecast = null)
    {
    }

    /** "261, 262" */
    public function tags(): string
    {
        return implode(', ', array_map(static fn (Lane $lane): string => (string) $lane->tag, $this->lanes));
    }

    public function with(Lane $lane): self
    {
        return new self($this->due, [...$this->lanes, $lane], $this->forecast);
    }
}
