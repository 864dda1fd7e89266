<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/**
 * Readings in order, stored as columns. Loops read the columns, and a reading object is only made where one is needed.
 * Looking one up by place costs O(log n), a subset by limit O(n) once.
 */
final class Trace
{
    /** @var array<int, self> */
    private array $atLeast = [];

    /** @var array<int, self> */
    private array $atMost = [];

    private ?TemperatureRange $extent = null;

    /**
     * @param list<int> $orders places among all counted events
     * @param list<int> $ats seconds since 1970, UTC
     * @param list<Temperature> $temps
     * @param array<string, self>|null $byTrack null until first used
     * @param self|null $whole the trace it is a slice of
     */
    private function __construct(
        private readonly CountedReadings $source,
        public readonly array $orders,
        public readonly array $ats,
        public readonly array $temps,
        private ?array $byTrack = null,
        private readonly ?self $whole = null,
    ) {
    }

    public static function none(): self
    {
        return new self(new CountedReadings([], [], []), [], [], []);
    }

    /** @param array<string, ReadingColumns> $byTrack the same readings by their track, in the order of their first */
    public static function ofColumns(CountedReadings $source, ReadingColumns $all, array $byTrack): self
    {
        $tracks = [];
        foreach ($byTrack as $track => $column) {
            $tracks[$track] = new self($source, $column->orders, $column->ats, $column->temps);
        }

        return new self($source, $all->orders, $all->ats, $all->temps, $tracks);
    }

    /** @param list<TrackReading> $readings in order */
    public static function of(array $readings): self
    {
        $made = $leftOut = $thermometers = $orders = $ats = $temps = [];
        foreach ($readings as $index => $reading) {
            $made[$reading->order] = $reading;
            $orders[] = $reading->order;
            $ats[] = $reading->at;
            $temps[] = $reading->temp;
            if ($reading->leftOut !== null) {
                $leftOut[$reading->order] = $reading->leftOut;
            }
            if ($index === 0 || $readings[$index - 1]->thermometer !== $reading->thermometer) {
                $thermometers[] = [$index, $reading->thermometer];
            }
        }

        return new self(new CountedReadings([], $leftOut, $thermometers, $made), $orders, $ats, $temps);
    }

    /** Those of several traces of one record, each in its place. */
    public static function merged(self $one, self ...$others): self
    {
        $orders = $ats = $temps = [];
        foreach ([$one, ...$others] as $trace) {
            foreach ($trace->orders as $index => $order) {
                $orders[] = $order;
                $ats[$order] = $trace->ats[$index];
                $temps[$order] = $trace->temps[$index];
            }
        }
        sort($orders);
        ksort($ats);
        ksort($temps);

        return new self($one->source, $orders, array_values($ats), array_values($temps));
    }

    public function isEmpty(): bool
    {
        return $this->orders === [];
    }

    /** How many it holds. */
    public function size(): int
    {
        return \count($this->orders);
    }

    /** How many were read, those an abridged record left out with them. */
    public function count(): int
    {
        $count = \count($this->orders);
        foreach ($this->leftOut() as $leftOut) {
            $count += $leftOut->count;
        }

        return $count;
    }

    /** @return array<int, OmittedReadings> by place: the omitted readings before each of them */
    public function leftOut(): array
    {
        $leftOut = $this->source->leftOut;

        return $leftOut === [] ? [] : array_intersect_key($leftOut, array_flip($this->orders));
    }

    /** Omitted readings of an abridged record before a reading, by its place. */
    public function leftOutBefore(int $order): ?OmittedReadings
    {
        return $this->source->leftOut[$order] ?? null;
    }

    /** Whether the reading at this place follows the one before it on its track, and none that was left out. */
    public function follows(int $order): bool
    {
        return ($this->source->leftOut[$order]->count ?? 0) === 0;
    }

    /** Lowest and highest temperature: many questions can skip the loop. */
    public function extent(): TemperatureRange
    {
        return $this->extent ??= TemperatureRange::of($this->temps);
    }

    /** Whether none was left out. */
    public function isWhole(): bool
    {
        return $this->leftOut() === [];
    }

    /** Whether one thermometer read all of them, or none that is named. */
    public function isOfOneThermometer(): bool
    {
        if (\count($this->source->thermometers) < 2) {
            return true;
        }
        foreach ($this->orders as $order) {
            if ($this->source->at($order)->thermometer !== $this->first()?->thermometer) {
                return false;
            }
        }

        return true;
    }

    /**
     * Of all readings of a record: the thermometers that read them, in turn.
     *
     * @return list<array{int, int, string|null}> from which of them, counted from 0, up to which, that one not
     *     included, by which
     */
    public function byThermometer(): array
    {
        $parts = [];
        foreach ($this->source->thermometers as $index => [$from, $label]) {
            $parts[] = [$from, $this->source->thermometers[$index + 1][0] ?? \count($this->orders), $label];
        }

        return $parts;
    }

    /** @param int $index counted from 0 */
    public function at(int $index): TrackReading
    {
        return $this->source->at($this->orders[$index]);
    }

    /** @return list<TrackReading> all readings as objects */
    public function all(): array
    {
        return array_map($this->source->at(...), $this->orders);
    }

    public function first(): ?TrackReading
    {
        return $this->orders === [] ? null : $this->at(0);
    }

    public function last(): ?TrackReading
    {
        return $this->orders === [] ? null : $this->at(\count($this->orders) - 1);
    }

    /** The last reading that stands before this place. */
    public function lastBefore(int $order): ?TrackReading
    {
        $before = $this->countBefore($order);

        return $before === 0 ? null : $this->at($before - 1);
    }

    /** The last reading at or before this moment, in seconds since 1970. */
    public function lastUntil(int $at): ?TrackReading
    {
        $until = $this->countUntil($at);

        return $until === 0 ? null : $this->at($until - 1);
    }

    /** The readings from one place up to another, that one not included. */
    public function between(int $order, int $endOrder): self
    {
        return $this->slice($this->countBefore($order), $this->countBefore($endOrder));
    }

    /** The readings from one to another, counted from 0, that one not included. */
    public function slice(int $from, int $until): self
    {
        $count = max(0, $until - $from);
        if ($count === \count($this->orders)) {
            return $this;
        }

        return new self(
            $this->source,
            \array_slice($this->orders, $from, $count),
            \array_slice($this->ats, $from, $count),
            \array_slice($this->temps, $from, $count),
            null,
            $this,
        );
    }

    /**
     * Those at some places.
     *
     * @param list<int> $indexes counted from 0, rising
     */
    public function only(array $indexes): self
    {
        $orders = $ats = $temps = [];
        foreach ($indexes as $index) {
            $orders[] = $this->orders[$index];
            $ats[] = $this->ats[$index];
            $temps[] = $this->temps[$index];
        }

        return new self($this->source, $orders, $ats, $temps);
    }

    /** Readings that an abridged record did not keep: those since the checkpoint. */
    public function fresh(): self
    {
        $leftOut = $this->source->leftOut;

        return $leftOut === []
            ? $this
            : $this->only(
                array_keys(array_filter($this->orders, static fn (int $order): bool => !isset($leftOut[$order]))),
            );
    }

    public function atLeast(Threshold $limit): self
    {
        return $this->atLeast[spl_object_id($limit)] ??= $this->onSide($limit, 1);
    }

    public function atMost(Threshold $limit): self
    {
        return $this->atMost[spl_object_id($limit)] ??= $this->onSide($limit, -1);
    }

    public function firstBelow(Threshold $limit): ?TrackReading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->lowest >= max($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->temps as $index => $temp) {
            if ($temp->ninetieths < ($temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
                return $this->at($index);
            }
        }

        return null;
    }

    public function firstAbove(Threshold $limit): ?TrackReading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->highest <= min($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->temps as $index => $temp) {
            if ($temp->ninetieths > ($temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
                return $this->at($index);
            }
        }

        return null;
    }

    public function firstAtLeast(Threshold $limit): ?TrackReading
    {
        [$fahrenheit, $other] = self::levels($limit);
        if ($this->extent()->highest < min($fahrenheit, $other)) {
            return null;
        }
        foreach ($this->temps as $index => $temp) {
            if ($temp->ninetieths >= ($temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other)) {
                return $this->at($index);
            }
        }

        return null;
    }

    /** @return array<string, self> by track, in the order in which the tracks were first read */
    public function byTrack(): array
    {
        return $this->byTrack ??= $this->whole === null ? $this->grouped() : $this->partsOf($this->whole);
    }

    /**
     * The parts of its tracks that lie in this part of it.
     *
     * @return array<string, self>
     */
    private function partsOf(self $whole): array
    {
        $size = \count($this->orders);
        $byTrack = [];
        foreach ($size === 0 ? [] : $whole->byTrack() as $track => $trace) {
            $part = $trace->between($this->orders[0], $this->orders[$size - 1] + 1);
            if ($part->orders !== []) {
                $byTrack[$track] = $part;
            }
        }
        uasort($byTrack, static fn (self $one, self $other): int => $one->orders[0] <=> $other->orders[0]);

        return $byTrack;
    }

    /** @return array<string, self> */
    private function grouped(): array
    {
        $indexes = [];
        foreach ($this->orders as $index => $order) {
            $indexes[$this->source->at($order)->track][] = $index;
        }

        return array_map($this->only(...), $indexes);
    }

    /**
     * Those at the limit and on one side of it.
     *
     * @param int $side 1 above it, −1 below it
     */
    private function onSide(Threshold $limit, int $side): self
    {
        [$fahrenheit, $other] = self::levels($limit);
        $indexes = [];
        foreach ($this->temps as $index => $temp) {
            $level = $temp->unit === TemperatureUnit::Fahrenheit ? $fahrenheit : $other;
            if ($side * ($temp->ninetieths - $level) >= 0) {
                $indexes[] = $index;
            }
        }

        return $this->only($indexes);
    }

    /** @return array{int, int} a limit for readings in °F and for others, in ninetieths of a degree Celsius */
    private static function levels(Threshold $limit): array
    {
        return [$limit->levelIn(TemperatureUnit::Fahrenheit), $limit->levelIn(TemperatureUnit::Celsius)];
    }

    /** How many stand before this place. */
    public function countBefore(int $order): int
    {
        return self::countBelow($this->orders, $order);
    }

    /** How many were read at or before this moment, in seconds since 1970. */
    public function countUntil(int $at): int
    {
        return self::countBelow($this->ats, $at === \PHP_INT_MAX ? $at : $at + 1);
    }

    /** @param list<int> $rising */
    private static function countBelow(array $rising, int $figure): int
    {
        $low = 0;
        $high = \count($rising);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($rising[$middle] < $figure) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
