<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Threshold;

/** Readings in their order. Looking one up by place costs O(log n), a subset by limit O(n) once. */
final class Trace
{
    /** @var array<int, self> */
    private array $atLeast = [];

    /** @var array<int, self> */
    private array $atMost = [];

    /** @var array<string, self>|null */
    private ?array $byTrack = null;

    /** @param list<Reading> $readings in order */
    public function __construct(public readonly array $readings)
    {
    }

    public function isEmpty(): bool
    {
        return $this->readings === [];
    }

    /** How many were read, those an abridged record left out with them. */
    public function count(): int
    {
        $count = \count($this->readings);
        foreach ($this->readings as $reading) {
            $count += $reading->leftOut->count ?? 0;
        }

        return $count;
    }

    public function first(): ?Reading
    {
        return $this->readings[0] ?? null;
    }

    public function last(): ?Reading
    {
        return $this->readings[\count($this->readings) - 1] ?? null;
    }

    /** The last reading that stands before this place. */
    public function lastBefore(int $order): ?Reading
    {
        return $this->readings[$this->firstIndexFrom($order) - 1] ?? null;
    }

    /** The last reading at or before this moment, in seconds since 1970. */
    public function lastUntil(int $at): ?Reading
    {
        $low = 0;
        $high = \count($this->readings);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($this->readings[$middle]->at <= $at) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $this->readings[$low - 1] ?? null;
    }

    /** The readings from one place up to another, that one not included. */
    public function between(int $order, int $endOrder): self
    {
        $from = $this->firstIndexFrom($order);

        $count = $this->firstIndexFrom($endOrder) - $from;

        return $count === \count($this->readings) ? $this : new self(\array_slice($this->readings, $from, $count));
    }

    public function atLeast(Threshold $limit): self
    {
        return $this->atLeast[spl_object_id($limit)] ??= $this->onSide($limit, -1);
    }

    public function atMost(Threshold $limit): self
    {
        return $this->atMost[spl_object_id($limit)] ??= $this->onSide($limit, 1);
    }

    public function firstBelow(Threshold $limit): ?Reading
    {
        foreach ($this->readings as $reading) {
            if ($limit->compare($reading->temp) < 0) {
                return $reading;
            }
        }

        return null;
    }

    public function firstAbove(Threshold $limit): ?Reading
    {
        foreach ($this->readings as $reading) {
            if ($limit->compare($reading->temp) > 0) {
                return $reading;
            }
        }

        return null;
    }

    /** @return array<string, self> by track, in the order in which the tracks were first read */
    public function byTrack(): array
    {
        if ($this->byTrack === null) {
            $readings = [];
            foreach ($this->readings as $reading) {
                $readings[$reading->track][] = $reading;
            }
            $this->byTrack = array_map(static fn (array $ofTrack): self => new self($ofTrack), $readings);
        }

        return $this->byTrack;
    }

    /** Those at the limit and on one side of it: all but the ones on the other side. */
    private function onSide(Threshold $limit, int $otherSide): self
    {
        $readings = [];
        foreach ($this->readings as $reading) {
            if ($limit->compare($reading->temp) !== $otherSide) {
                $readings[] = $reading;
            }
        }

        return new self($readings);
    }

    private function firstIndexFrom(int $order): int
    {
        $low = 0;
        $high = \count($this->readings);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($this->readings[$middle]->order < $order) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
