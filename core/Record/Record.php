<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;

/** One batch with all that is needed to judge it. */
final readonly class Record
{
    /**
     * @param list<RecordedThermometer> $thermometers
     * @param list<Event> $events in the order of the record, which breaks ties
     * @param int|null $tag the number on it in the kitchen
     * @param array<string, mixed> $extensions unknown members: kept, ignored
     * @param array<string, mixed> $extensionsOfBatch the same, of its batch
     */
    public function __construct(
        public RecordedSite $site,
        public string $rules,
        public ?Instant $asOf,
        public array $thermometers,
        public ?string $code,
        public RecordedProduct $product,
        public array $events,
        public ?int $tag = null,
        public ?Portion $portion = null,
        public array $extensions = [],
        public array $extensionsOfBatch = [],
    ) {
    }

    /** As it would be with further events. */
    public function with(Event ...$more): self
    {
        return $this->of([...$this->events, ...array_values($more)]);
    }

    /**
     * With other events.
     *
     * @param list<Event> $events
     */
    public function of(array $events): self
    {
        return new self(
            $this->site,
            $this->rules,
            $this->asOf,
            $this->thermometers,
            $this->code,
            $this->product,
            $events,
            $this->tag,
            $this->portion,
            $this->extensions,
            $this->extensionsOfBatch,
        );
    }
}
