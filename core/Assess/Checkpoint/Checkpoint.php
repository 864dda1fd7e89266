<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Checkpoint;

use Verjuicer\Core\Assess\Evidence\OmittedReadings;
use Verjuicer\Core\Assess\Zone\ExposureLine;
use Verjuicer\Core\Assess\Zone\ExposureLines;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/**
 * The state of judging a record up to a moment: the readings still needed, a summary of the others, and the marks to
 * resume from. At any moment from `until` on, judging it with all later events gives the result of the whole record.
 */
final readonly class Checkpoint
{
    /**
     * @param int $until Unix time; events up to then are included
     * @param int $size how many of the events that count are in it, those that are no readings and those that are kept
     * @param array<string, OmittedReadings> $leftOut by the id of each reading that is kept, in order
     * @param ExposureLines $lines of the danger zone, as far as it goes
     * @param array<string, mixed> $marks to go on from: places in $leftOut, numbers
     */
    public function __construct(
        public int $until,
        public int $size,
        public array $leftOut,
        public ExposureLines $lines,
        public array $marks,
    ) {
    }

    /**
     * The events of an abridged record: all except readings that no check needs any more. Later events are complete,
     * and corrected events stay beside their corrections.
     *
     * @return list<Event> in their order
     */
    public function events(Record $record): array
    {
        $replaced = [];
        foreach ($record->events as $event) {
            $replaced[$event->replaces ?? ''] = true;
        }

        return array_values(
            array_filter(
                $record->events,
                fn (Event $event): bool => !($event->detail instanceof Reading)
                    || $event->at->epoch > $this->until
                    || $event->replaces !== null
                    || isset($this->leftOut[$event->id])
                    || isset($replaced[$event->id]),
            ),
        );
    }

    /** @return array<string, mixed> for `json_encode`; `ofData` reads it again */
    public function toData(): array
    {
        $lines = static fn (ExposureLine $line): array => $line->toData();

        return [
            'until' => $this->until,
            'size' => $this->size,
            'left_out' => (object) array_map(
                static fn (OmittedReadings $one): array => [
                    $one->count,
                    $one->gap,
                    (object) $one->lowest,
                    $one->before,
                    $one->impossible,
                    $one->unchecked,
                    $one->overdue,
                ],
                $this->leftOut,
            ),
            'pieces' => (object) array_map($lines, $this->lines->ofPieces),
            'tracks' => (object) array_map($lines, $this->lines->ofTracks),
            'marks' => $this->marks,
        ];
    }

    /** @param array<mixed> $data as `toData` made it, decoded as arrays */
    public static function ofData(array $data): self
    {
        /**
         * @var array{
         *     until: int,
         *     size: int,
         *     left_out: array<string, array{int, int, array<string, int>, int|null, int, int, int}>,
         *     pieces: array<int, array{int, int, int, int, int, int, array<string, int>, int, int, int, string, int,
         *         int}>,
         *     tracks: array<string, array{int, int, int, int, int, int, array<string, int>, int, int, int, string, int,
         *         int}>,
         *     marks: array<string, mixed>
         * } $data
         */
        return new self(
            $data['until'],
            $data['size'],
            array_map(static fn (array $one): OmittedReadings => new OmittedReadings(...$one), $data['left_out']),
            new ExposureLines(
                array_map(ExposureLine::ofData(...), $data['pieces']),
                array_map(ExposureLine::ofData(...), $data['tracks']),
            ),
            $data['marks'],
        );
    }
}
