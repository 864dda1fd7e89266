<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Work\Portion\Portions;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** From purchase to plate: weights as they were written down at each step, and what a portion cost. */
final readonly class Yields
{
    public function __construct(private Connection $connection, private StoredRecords $records, private Portions $portions)
    {
    }

    public function of(Batch $batch): BatchYield
    {
        /** @var array{grams: int|null, cents: int|null} $bought */
        $bought = $this->connection->fetchAssociative(<<<'SQL'
            SELECT sum(b.grams)::int AS grams, CASE WHEN bool_and(l.price_cents IS NOT NULL) THEN round(sum(l.price_cents::numeric * b.grams / l.grams))::int END AS cents
            FROM batch_lot b JOIN lot l ON l.id = b.lot_id WHERE b.batch_id = ?
            SQL, [$batch->id->toRfc4122()]);
        $weights = ['bought' => $bought['grams'], 'raw' => $batch->parent === null && $batch->rawGrams !== null ? $batch->rawGrams * $batch->pieces : null, 'trimmed' => null, 'cooked' => null, 'served' => null, 'donated' => null, 'waste' => null, 'safety' => null];
        $portions = 0;
        foreach ($this->withPortions($batch) as $one) {
            foreach ($this->own($one) as $event) {
                [$weights, $portions] = self::counted($event, $weights, $portions);
            }
        }

        return new BatchYield($weights, $portions, $bought['cents']);
    }

    /**
     * @param array<string, int|null> $weights
     *
     * @return array{array<string, int|null>, int}
     */
    private static function counted(Event $event, array $weights, int $portions): array
    {
        $extras = new Extras($event);
        $name = match (true) {
            $event->type === EventType::Trim => 'trimmed',
            $extras->text('step') === 'divided' && $event->type === EventType::Note => 'cooked',
            $event->type === EventType::Serve => 'served',
            $event->type === EventType::Discard => $extras->text('why') ?? 'safety',
            default => null,
        };
        $grams = match ($name) {
            'trimmed' => $extras->grams('after_kg'),
            'cooked' => $extras->grams('total_kg'),
            default => $extras->grams('weight_kg'),
        };
        if ($name !== null && $grams !== null && \array_key_exists($name, $weights)) {
            // The first weight of a divided batch is that of all of it; what was divided again is in it already.
            $weights[$name] = $name === 'cooked' ? $weights[$name] ?? $grams : ($weights[$name] ?? 0) + $grams;
        }

        return [$weights, $portions + ($event->type === EventType::Serve ? $extras->whole('portions') ?? 0 : 0)];
    }

    /** @return list<Batch> */
    private function withPortions(Batch $batch): array
    {
        return array_merge([$batch], ...array_map($this->withPortions(...), $this->portions->of($batch)));
    }

    /** @return list<Event> what was written down of this one and not of what it was split off */
    private function own(Batch $batch): array
    {
        $shared = $batch->parent === null ? [] : array_column($this->records->of($batch->parent)->events, 'id');

        return array_values(array_filter(Timeline::of($this->records->of($batch), Instant::ofEpoch(\PHP_INT_MAX))->events, static fn (Event $event): bool => !\in_array($event->id, $shared, true)));
    }
}
