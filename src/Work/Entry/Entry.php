<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problem;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** What somebody wants to record, before it has an id, a time and a name. */
final readonly class Entry
{
    /** The spot of a product that names none. */
    public const SPOT = 'core';

    /**
     * @param array<string, mixed> $extras     members beyond the format's own
     * @param bool                 $isSpotOpen whether it is a reading at a spot nobody named
     */
    private function __construct(
        public EventType $type,
        public Detail\Detail $detail,
        public int $minutesAgo,
        public ?string $reason,
        public array $extras = [],
        public bool $isSpotOpen = false,
    ) {
    }

    /** @param string|null $spot null where nobody named one: which it is follows from the batch */
    public static function reading(Temperature $temperature, int $piece, ?string $spot, ?string $thermometer, int $minutesAgo): self
    {
        return new self(EventType::Reading, new Detail\Reading($temperature, $piece, $spot ?? self::SPOT, $thermometer), $minutesAgo, null, isSpotOpen: $spot === null);
    }

    /**
     * From the members of the open format, which check themselves.
     *
     * @throws EntryProblem if a member is missing or wrong
     */
    public static function of(EventType $type, \stdClass $members, int $minutesAgo, ?string $reason): self
    {
        $problems = new Problems();
        $fields = new Fields($members, null, '', $problems);
        $detail = $type->read($fields);
        if ($detail === null || $problems->all() !== []) {
            throw EntryProblem::incomplete(array_map(static fn (Problem $problem): string => explode('/', $problem->pointer)[1], $problems->all()));
        }

        return new self($type, $detail, $minutesAgo, $reason, $fields->unknown(), $detail instanceof Detail\Reading && !isset($members->spot));
    }

    /** @param array<string, mixed> $extras in place of those it had */
    public function with(Detail\Detail $detail, array $extras): self
    {
        return new self($this->type, $detail, $this->minutesAgo, $this->reason, $extras);
    }

    public function at(Instant $now): Instant
    {
        return $now->plus(Span::ofMinutes(-$this->minutesAgo));
    }

    public function event(string $id, Instant $now, string $by): Event
    {
        return new Event($id, $this->at($now), $by, $this->type, $this->detail, null, $this->reason, $this->extras);
    }
}
