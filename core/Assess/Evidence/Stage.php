<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/** From one stage event to the next, or to the moment of judging: then it is open. */
final readonly class Stage
{
    /**
     * @param int $index place among all stages
     * @param int $order place of its event among all counted events
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

    /** @param class-string<Detail> ...$kinds */
    public function is(string ...$kinds): bool
    {
        return \in_array($this->event->detail::class, $kinds, true);
    }

    /** The name of its kind in the open format. */
    public function name(): string
    {
        return $this->event->kind()->name();
    }

    public function isEnd(): bool
    {
        return $this->event->detail instanceof EndsBatch;
    }

    /** The pit, unit, place or method; null if the record names none. */
    public function place(): ?string
    {
        $detail = $this->event->detail;

        return match (true) {
            $detail instanceof ColdHold, $detail instanceof HotHold, $detail instanceof Freeze => $detail->place,
            $detail instanceof Rest, $detail instanceof Cool, $detail instanceof Thaw => $detail->method,
            $detail instanceof Cook => $detail->pit,
            default => null,
        };
    }
}
