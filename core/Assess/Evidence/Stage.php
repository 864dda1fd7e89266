<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail\ByMethod;
use Verjuicer\Core\Record\Detail\Held;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** From one stage event to the next, or to the moment of judging: then it is open. */
final readonly class Stage
{
    /**
     * @param int $index    place among all stages
     * @param int $order    place of its event among all counted events
     * @param int $endOrder the place of the event that ends it, or one past the last
     */
    public function __construct(
        public int $index,
        public Event $event,
        public Instant $from,
        public Instant $to,
        public bool $isOpen,
        public int $order,
        public int $endOrder,
    ) {
    }

    public function type(): EventType
    {
        return $this->event->type;
    }

    /** Where it was: the pit, the unit or the place, or by what method; null where the record names none. */
    public function place(): ?string
    {
        $detail = $this->event->detail;

        return match (true) {
            $detail instanceof Held => $detail->place,
            $detail instanceof ByMethod => $detail->method,
            default => (new Extras($this->event))->text('pit'),
        };
    }
}
