<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Record\Event;

/** The readings among the counted events of a record: each is made when it is asked for, once. */
final class CountedReadings
{
    /**
     * @param list<Event> $events counted, in order
     * @param array<int, OmittedReadings> $leftOut omitted readings of an abridged record before a reading, by its place
     * @param list<array{int, string|null}> $thermometers each with the first of the readings in a row, from 0, that are
     *     by it
     * @param array<int, TrackReading> $made by place
     */
    public function __construct(
        private readonly array $events,
        public readonly array $leftOut,
        public readonly array $thermometers,
        private array $made = [],
    ) {
    }

    /** @param int $order place among all counted events; a reading stands there */
    public function at(int $order): TrackReading
    {
        $made = $this->made[$order] ?? null;
        if ($made !== null) {
            return $made;
        }
        $event = $this->events[$order];
        $detail = $event->detail;
        \assert($detail instanceof Kinds\Reading, 'a reading stands there');

        return $this->made[$order] = new TrackReading(
            $event->id,
            $event->at->epoch,
            $order,
            $detail->temp,
            $detail->piece,
            $detail->spot,
            $detail->piece.'/'.$detail->spot,
            $detail->thermometer,
            $this->leftOut[$order] ?? null,
        );
    }
}
