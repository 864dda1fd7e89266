<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Product;
use Verjuicer\Core\Record\Record;

/** The counted events of a record at one moment: in order, cut into stages, without what was replaced. */
final readonly class Timeline
{
    /**
     * @param list<Event> $events counted, in order
     * @param list<Stage> $stages
     * @param list<Reading> $readings
     * @param array<int, Event> $happenings those of the events that are no readings, by their place
     */
    private function __construct(
        public Instant $asOf,
        public array $events,
        public array $happenings,
        public array $stages,
        public array $readings,
        public ?Instant $end,
    ) {
    }

    /** @param array<string, LeftOut> $leftOut where the record is abridged, by the reading that was kept */
    public static function of(Record $record, Instant $asOf, array $leftOut = []): self
    {
        $events = self::counted($record, $asOf);
        $readings = $happenings = $stageOrders = $tracks = [];
        foreach ($events as $order => $event) {
            $detail = $event->detail;
            if ($detail instanceof Kinds\Reading) {
                $piece = $detail->piece;
                $spot = $detail->spot;
                $readings[] = new Reading(
                    $event->id,
                    $event->at->epoch,
                    $order,
                    $detail->temp,
                    $piece,
                    $spot,
                    $tracks[$spot][$piece] ??= $piece.'/'.$spot,
                    $detail->thermometer,
                    $leftOut === [] ? null : $leftOut[$event->id] ?? null,
                );
                continue;
            }
            $happenings[$order] = $event;
            if ($detail instanceof BeginsStage) {
                $stageOrders[] = $order;
            }
        }
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
     * The moment to judge at when nobody names one: the record's own, else the last counted event of an ended batch,
     * else now.
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
        $isWhole = !$isPart;
        $inOrder = true;
        $before = \PHP_INT_MIN;
        foreach ($record->events as $event) {
            if ($event->replaces !== null) {
                $replaced[$event->replaces] = true;
            }
            $at = $event->at->epoch;
            $isWhole = $isWhole && $at <= $until;
            $inOrder = $inOrder && $before <= $at;
            $before = $at;
        }
        // Most records count as they are: then their list is not made once more.
        $counted = $isWhole && $replaced === []
            ? $record->events
            : array_values(
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
    private static function isOfOtherFood(Event $event, Product $product): bool
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
