<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/** Readings of a record that say less than others, as parts of all of them. */
final readonly class DiscountedReadings
{
    /**
     * @param list<array{int, int}> $parts from which reading, counted from 0, up to which, that one not included
     * @param int $leftOut how many of those that an abridged record left out
     */
    public function __construct(private Trace $readings, private array $parts, private int $leftOut)
    {
    }

    public function isEmpty(): bool
    {
        return $this->parts === [];
    }

    /** How many, those an abridged record left out with them. */
    public function count(): int
    {
        $count = $this->leftOut;
        foreach ($this->parts as [$from, $until]) {
            $count += $until - $from;
        }

        return $count;
    }

    public function first(): ?TrackReading
    {
        return $this->parts === [] ? null : $this->readings->at($this->parts[0][0]);
    }

    /** @return list<string> the thermometers that read them, in the order of their first; none is one thermometer's */
    public function thermometers(): array
    {
        $labels = [];
        foreach ($this->parts as [$from]) {
            $label = $this->readings->at($from)->thermometer ?? '';
            $labels[$label] = $label;
        }

        return array_values($labels);
    }

    /** @return array<int, true> by their place among all counted events */
    public function orders(): array
    {
        $orders = [];
        foreach ($this->parts as [$from, $until]) {
            for ($index = $from; $index < $until; ++$index) {
                $orders[$this->readings->orders[$index]] = true;
            }
        }

        return $orders;
    }
}
