<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;

/** An entry an inspector looks at twice: written down late, replaced by another, or taken in from a file. */
final readonly class FlaggedEntry
{
    /**
     * @param Span|null $late how much later it was written down
     * @param Event|null $replacedBy its correction
     */
    public function __construct(public Event $event, public ?Span $late, public ?Event $replacedBy)
    {
    }

    public function isImported(): bool
    {
        return $this->event->imported !== null;
    }

    /** @return list<string> 'late', 'replaced', 'imported' */
    public function marks(): array
    {
        return array_keys(array_filter([
            'late' => $this->late !== null,
            'replaced' => $this->replacedBy !== null,
            'imported' => $this->isImported(),
        ]));
    }
}
