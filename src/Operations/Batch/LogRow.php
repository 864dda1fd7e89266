<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;

/** One line of everything that was written down. */
final readonly class LogRow
{
    /**
     * @param Event|null $replacedBy what took its place
     * @param Span|null $late how long after it happened it was written down, where that is late
     * @param LogRange|null $range the readings that were taken back together
     */
    public function __construct(
        public Event $event,
        public ?Event $replacedBy,
        public ?Span $late,
        public ?LogRange $range,
    ) {
    }
}
