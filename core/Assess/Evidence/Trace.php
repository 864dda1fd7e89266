<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\TemperatureUnit;
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

    private ?Extent $extent = null;

    /** @param list<Reading> $readings in order */
    public function __construct(public readonly array $readings)
    {
    }

    public function isEmpty(): bool
    {
        return $this->readings === [];
    }

    /** How far they reach: what many a question need not ask of each. */
    public function extent(): Extent
    {
        return $this->extent ??= Extent::of($this->readings);
    }

    /** How many were read, those an abridged record left out with them. */
    public function count(): int
    {
        $count = \count($this->readings);
        foreach ($this->readings as $reading) {
            if ($reading->leftOut !== null) {
                $count += $reading->leftOut->count;
            }
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
        return $this->readings[$this->countBefore($order) - 1] ?? null;
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
        $from = $this->countBefore($order);

        $count = $this->countBefore($endOrder) - $from;

        return $count === \count($this->readings) ? $this : new self(\array_slice($this->readings, $from, $count));
    }

    public function atLeast(Threshold $limit): self
    {
        return $this->atLeast[spl_object_id($limit)] ??= $this->onSide($limit, 1);
    }

    public function atMost(Threshold $limit): self
    {
        return $this->atMost[spl_object_id($limit)] ??= $this->onSide($limit, -1);
    }

    public function firstBelow(Threshold $limit): ?Reading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->lowest >= max($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->readings as $reading) {
            if ($reading->level < ($reading->temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
                return $reading;
            }
        }

        return null;
    }

    public function firstAbove(Threshold $limit): ?Reading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->highest <= min($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->readings as $reading) {
            if ($reading->level > ($reading->temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
                return $reading;
            }
        }

        return null;
    }

    public function firstAtLeast(Threshold $limit): ?Reading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->highest < min($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->readings as $reading) {
            if ($reading->level >= ($reading->temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
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

    /**
     * Those at the limit and on one side of it.
     *
     * @param int $side 1 above it, −1 below it
     */
    private function onSide(Threshold $limit, int $side): self
    {
        [$fahrenheit, $other] = self::levels($limit);
        $readings = [];
        foreach ($this->readings as $reading) {
            $level = $reading->temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other;
            if ($side * ($reading->level - $level) >= 0) {
                $readings[] = $reading;
            }
        }

        return new self($readings);
    }

    /** @return array{int, int} a limit for readings in °F and for others, in ninetieths of a degree Celsius */
    private static function levels(Threshold $limit): array
    {
        return [$limit->levelIn(TemperatureUnit::Fahrenheit), $limit->levelIn(TemperatureUnit::Celsius)];
    }

    /** How many stand before this place. */
    public function countBefore(int $order): int
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
