<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

/** The stored entries of a batch, without its pits' log, in the shape of the open format. */
final readonly class StoredRows
{
    /**
     * @param list<\stdClass> $events in the order in which they were written down
     * @param array<string, int> $places in the log, by the id of the event; of an abridged record those since alone
     * @param list<string> $thermometers it was read with
     * @param string $first when the first of it happened, RFC 3339 in UTC; '' where nothing did
     * @param string $last the same of the last
     */
    private function __construct(
        public array $events,
        public array $places,
        public array $thermometers,
        public string $first,
        public string $last,
    ) {
    }

    /** @param array<mixed> $rows members, id, at, by, type, replaces, reason, recorded_at, place */
    public static function of(array $rows): self
    {
        $events = $places = $labels = [];
        $first = $last = '';
        foreach ($rows as $row) {
            [$event, $id, $at, $by, $type, $replaces, $reason, $recordedAt, $place] = \is_array($row) ? $row : [];
            \assert($event instanceof \stdClass, 'the members of an event are an object');
            \assert(\is_string($id) && \is_string($at) && \is_int($place), 'no event lacks them');
            $event->id = $id;
            $event->at = $at;
            $event->by = $by;
            $event->type = $type;
            if ($replaces !== null) {
                $event->replaces = $replaces;
            }
            if ($reason !== null) {
                $event->reason = $reason;
            }
            $event->recorded_at = $recordedAt;
            $events[] = $event;
            $places[$id] = $place;
            if ($type === 'reading' && \is_string($event->thermometer ?? null)) {
                $labels[$event->thermometer] = true;
            }
            $first = $first === '' ? $at : min($first, $at);
            $last = max($last, $at);
        }

        return new self($events, $places, array_map(strval(...), array_keys($labels)), $first, $last);
    }

    /** With later entries. */
    public function and(self $more): self
    {
        return new self(
            [...$this->events, ...$more->events],
            $this->places + $more->places,
            array_values(array_unique([...$this->thermometers, ...$more->thermometers])),
            $this->first === '' ? $more->first : min($this->first, $more->first),
            max($this->last, $more->last),
        );
    }

    /**
     * The rows after the readings that a checkpoint retained.
     *
     * @param list<\stdClass> $kept
     * @param list<string> $thermometers it was read with before
     * @param string $first when the first of it happened
     */
    public function after(array $kept, array $thermometers, string $first, string $until): self
    {
        return new self(
            [...$kept, ...$this->events],
            $this->places,
            array_values(array_unique([...$thermometers, ...$this->thermometers])),
            $first,
            max($until, $this->last),
        );
    }
}
