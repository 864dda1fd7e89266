<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Serve;
use Verjuicer\Core\Event\Kinds\Trim;
use Verjuicer\Core\Food\DiscardReason;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/** From purchase to plate: weights as they were written down at each step, and what a portion cost. */
final readonly class Yields
{
    public function __construct(
        private Connection $connection,
        private CheckpointedRecords $records,
        private Batches $batches,
    ) {
    }

    /** @param Record|null $record of the batch, where it was read already */
    public function of(Batch $batch, ?Record $record = null): BatchYield
    {
        /** @var array{grams: int|null, cents: int|null} $bought */
        $bought = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT sum(b.grams)::int AS grams,
                   CASE WHEN bool_and(l.price_cents IS NOT NULL)
                     THEN round(sum(l.price_cents::numeric * b.grams / l.grams))::int END AS cents
            FROM batch_lot b JOIN lot l ON l.id = b.lot_id WHERE b.batch_id = ?
            SQL,
            [$batch->id->toRfc4122()],
        );
        if ($batch->parent !== null) {
            $bought = $this->shareOf($batch, $this->of($batch->parent));
        }
        $pieces = $batch->parent === null ? $batch->pieces : \count($batch->pieceNumbers ?? []);
        $raw = $pieces === 0 || $batch->rawGrams === null ? null : $batch->rawGrams * $pieces;
        $weights =
            ['bought' => $bought['grams'], 'raw' => $raw]
            + array_fill_keys(['trimmed', 'cooked', 'served', 'donated', 'waste', 'safety'], null);
        $portions = 0;
        foreach ($this->withPortions($batch) as $one) {
            foreach ($this->own($one, $one === $batch ? $record : null) as $event) {
                [$weights, $portions] = self::counted($event, $weights, $portions);
            }
        }

        return new BatchYield($weights, $portions, $bought['cents']);
    }

    /**
     * What was bought of it and what it cost: by the pieces it is, else by its weight beside all that was divided.
     *
     * @return array{grams: int|null, cents: int|null}
     */
    private function shareOf(Batch $portion, BatchYield $whole): array
    {
        $parent = $portion->parent;
        $all = $portion->pieceNumbers === null ? $whole->weights['cooked'] : $parent?->pieces;
        $part = $portion->pieceNumbers === null ? $portion->portionGrams : \count($portion->pieceNumbers);
        $share = $all === null || $all === 0 || $part === null ? null : min(1, $part / $all);
        $of = static fn (?int $amount): ?int => $amount === null || $share === null
            ? null
            : (int) round($share * $amount);

        return ['grams' => $of($whole->weights['bought']), 'cents' => $of($whole->cents)];
    }

    /**
     * @param array<string, int|null> $weights
     *
     * @return array{array<string, int|null>, int}
     */
    private static function counted(Event $event, array $weights, int $portions): array
    {
        $detail = $event->detail;
        [$name, $weight] = match (true) {
            $detail instanceof Trim => ['trimmed', $detail->afterKg],
            $detail instanceof Note && $detail->step === NoteStep::Divided => ['cooked', $detail->totalKg],
            $detail instanceof Note && $detail->step === NoteStep::Weighed => ['cooked', $detail->totalKg],
            $detail instanceof Serve, $detail instanceof Note && $detail->step === NoteStep::ServedPart => [
                'served',
                $detail->weightKg,
            ],
            $detail instanceof Discard, $detail instanceof Note && $detail->step === NoteStep::DiscardedPart => [
                ($detail->why ?? DiscardReason::Safety)->value,
                $detail->weightKg,
            ],
            default => [null, null],
        };
        if ($name !== null && $weight !== null) {
            // The first weight of a divided batch is that of all of it; what was divided again is in it already.
            $weights[$name] =
                $name === 'cooked' ? $weights[$name] ?? $weight->grams() : ($weights[$name] ?? 0) + $weight->grams();
        }

        return [
            $weights,
            $portions + ($detail instanceof Serve || $detail instanceof Note ? $detail->portions ?? 0 : 0),
        ];
    }

    /** @return list<Batch> */
    private function withPortions(Batch $batch): array
    {
        return array_merge([$batch], ...array_map($this->withPortions(...), $this->batches->portionsOf($batch)));
    }

    /** @return list<Event> what was written down of this one and not of what it was split off */
    private function own(Batch $batch, ?Record $record): array
    {
        $shared = $batch->parent === null
            ? []
            : array_column($this->records->of($batch->parent)->record->events, null, 'id');
        $events = Timeline::of($record ?? $this->records->of($batch)->record, Instant::ofEpoch(\PHP_INT_MAX))->events;

        return array_values(
            array_filter($events, static fn (Event $event): bool => !isset($shared[$event->id])),
        );
    }
}
