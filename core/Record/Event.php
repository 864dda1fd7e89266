<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Measure\Instant;

/** One thing that happened, never changed: a correction is another event that replaces it. */
final readonly class Event
{
    /**
     * @param string $by initials of the person who recorded it
     * @param string|null $replaces the id of the event whose place it takes
     * @param Instant|null $recordedAt when it was written down here; null where the record does not say
     * @param array<string, mixed> $extensions unknown members: kept, ignored
     */
    public function __construct(
        public string $id,
        public Instant $at,
        public string $by,
        public Detail $detail,
        public ?string $replaces = null,
        public ?string $reason = null,
        public ?Instant $recordedAt = null,
        public ?ImportOrigin $imported = null,
        public array $extensions = [],
    ) {
    }

    public function kind(): Kind
    {
        return EventKinds::of($this->detail::class);
    }

    /** @param class-string<Detail> ...$kinds */
    public function is(string ...$kinds): bool
    {
        return \in_array($this->detail::class, $kinds, true);
    }

    /**
     * An imported copy with its own id, recorded at the time and by the person of the import. The recording data of the
     * file is kept in it.
     */
    public function takenIn(string $by, string $id, ?string $replaces): self
    {
        $imported = new ImportOrigin($by, $this->imported->saysRecordedAt ?? $this->recordedAt);

        return new self(
            $id,
            $this->at,
            $this->by,
            $this->detail,
            $replaces,
            $this->reason,
            null,
            $imported,
            $this->extensions,
        );
    }

    /**
     * The same event with some fields changed: the start of a correction.
     *
     * @param array<string, mixed> $changes by field name; null takes a value away
     */
    public function corrected(array $changes): Detail
    {
        $kind = $this->kind();

        return $kind->make($changes + $kind->values($this->detail));
    }
}
