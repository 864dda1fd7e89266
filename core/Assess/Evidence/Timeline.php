<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\RecordedProduct;

/** The counted events of a record at one moment: in order, cut into stages, without replaced events. */
final readonly class Timeline
{
    /**
     * @param list<Event> $events counted, in order
     * @param list<Stage> $stages
     * @param array<int, Event> $happenings those of the events that are no readings, by their place
     */
    private function __construct(
        public Instant $asOf,
        public array $events,
        public array $happenings,
        public array $stages,
        public Trace $readings,
        public ?Instant $end,
    ) {
    }

    /** @param array<string, OmittedReadings> $leftOut where the record is abridged, by the reading that was kept */
    public static function of(Record $record, Instant $asOf, array $leftOut = []): self
    {
        $events = $record->events;
        // Most records count as they are.
        $gathered = $record->product->pieceNumbers === null ? self::gathered($events, $asOf->epoch, $leftOut) : null;
        if ($gathered === null) {
            $events = self::counted($record, $asOf);
            $gathered = self::gathered($events, null, $leftOut);
            \assert($gathered !== null, 'those that count are gathered as they stand');
        }
        [$readings, $happenings, $stageOrders] = $gathered;
        $stages = [];
        foreach ($stageOrders as $index => $order) {
            $next = $stageOrders[$index + 1] ?? null;
            $stages[] = new Stage(
                $index,
                $events[$order],
                $events[$order]->at,
                $next === null ? $asOf : $events[$next]->at,
                $next === null,
                $order,
                $next ?? \count($events),
            );
        }

        return new self($asOf, $events, $happenings, $stages, $readings, self::endOf($stages));
    }

    /**
     * Splits events into readings and all others in one pass, the main cost of a hundred thousand readings.
     *
     * @param list<Event> $events
     * @param int|null $until seconds since 1970: those that happened later do not count; null where all of them do
     * @param array<string, OmittedReadings> $leftOut by the id of a reading
     *
     * @return array{Trace, array<int, Event>, list<int>}|null the readings, the others by their place, and which of
     *     them begin a stage; null where some may not count or stand elsewhere
     */
    private static function gathered(array $events, ?int $until, array $leftOut): ?array
    {
        $all = new ReadingColumns();
        $columns = $byTrack = $happenings = $stageOrders = $leftOutAt = $thermometers = [];
        $label = false;
        $index = 0;
        $before = \PHP_INT_MIN;
        foreach ($events as $order => $event) {
            $at = $event->at->epoch;
            if ($until !== null && ($at < $before || $at > $until || $event->replaces !== null)) {
                return null;
            }
            $before = $at;
            $detail = $event->detail;
            if ($detail instanceof Kinds\Reading) {
                $column = $columns[$detail->spot][$detail->piece] ?? null;
                if ($column === null) {
                    $column = new ReadingColumns();
                    $byTrack[$detail->piece.'/'.$detail->spot] = $column;
                    $columns[$detail->spot][$detail->piece] = $column;
                }
                $temp = $detail->temp;
                $all->orders[] = $column->orders[] = $order;
                $all->ats[] = $column->ats[] = $at;
                $all->temps[] = $column->temps[] = $temp;
                if ($detail->thermometer !== $label) {
                    $label = $detail->thermometer;
                    $thermometers[] = [$index, $label];
                }
                ++$index;
                if ($leftOut !== [] && isset($leftOut[$event->id])) {
                    $leftOutAt[$order] = $leftOut[$event->id];
                }
                continue;
            }
            $happenings[$order] = $event;
            if ($detail instanceof BeginsStage) {
                $stageOrders[] = $order;
            }
        }
        $source = new CountedReadings($events, $leftOutAt, $thermometers);

        return [Trace::ofColumns($source, $all, $byTrack), $happenings, $stageOrders];
    }

    /**
     * The moment to judge at if none is given: the record's own, else the last counted event of an ended batch, else
     * now.
     */
    public static function defaultMoment(Record $record, Instant $now): Instant
    {
        if ($record->asOf !== null) {
            return $record->asOf;
        }
        $all = self::of($record, Instant::ofEpoch(\PHP_INT_MAX));
        $last = $all->events[\count($all->events) - 1] ?? null;

        return $all->end !== null && $last !== null ? $last->at : $now;
    }

    public function hasEnded(): bool
    {
        return $this->end !== null;
    }

    /** The end of the batch, or the moment of judging while it is open. */
    public function endOrAsOf(): Instant
    {
        return $this->end ?? $this->asOf;
    }

    public function stage(): ?Stage
    {
        return $this->stages[\count($this->stages) - 1] ?? null;
    }

    /**
     * The longest runs of successive stages of these kinds.
     *
     * @param class-string<Detail> ...$kinds
     *
     * @return list<non-empty-list<Stage>>
     */
    public function runsOf(string ...$kinds): array
    {
        $runs = [];
        $run = [];
        foreach ([...$this->stages, null] as $stage) {
            if ($stage !== null && $stage->is(...$kinds)) {
                $run[] = $stage;
            } elseif ($run !== []) {
                $runs[] = $run;
                $run = [];
            }
        }

        return $runs;
    }

    public function stageAfter(Stage $stage): ?Stage
    {
        return $this->stages[$stage->index + 1] ?? null;
    }

    /** @return list<Event> those that count, in order */
    private static function counted(Record $record, Instant $asOf): array
    {
        $until = $asOf->epoch;
        $isPart = $record->product->pieceNumbers !== null;
        $replaced = [];
        $inOrder = true;
        $before = \PHP_INT_MIN;
        foreach ($record->events as $event) {
            if ($event->replaces !== null) {
                $replaced[$event->replaces] = true;
            }
            $inOrder = $inOrder && $before <= $event->at->epoch;
            $before = $event->at->epoch;
        }
        $counted = array_values(
            array_filter(
                $record->events,
                static fn (Event $event): bool => $event->at->epoch <= $until
                    && !isset($replaced[$event->id])
                    && (!$isPart || !self::isOfOtherFood($event, $record->product)),
            ),
        );
        if (!$inOrder) {
            usort($counted, static fn (Event $one, Event $other): int => $one->at->epoch <=> $other->at->epoch);
        }

        return $counted;
    }

    /** A reading of a piece that the record does not hold. */
    private static function isOfOtherFood(Event $event, RecordedProduct $product): bool
    {
        $detail = $event->detail;

        return ($detail instanceof Kinds\Reading || $detail instanceof Kinds\ProbeMoved)
            && !$product->holds($detail->piece);
    }

    /** @param list<Stage> $stages */
    private static function endOf(array $stages): ?Instant
    {
        $end = null;
        foreach (array_reverse($stages) as $stage) {
            if (!$stage->isEnd()) {
                break;
            }
            $end = $stage->from;
        }

        return $end;
    }
}
