<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\App\Ledger\Batch\Batch;

/**
 * The events of a batch: its own and, for a portion, the shared ones of the batch it was split from: those dated before
 * the split, whenever they were recorded, and every later correction of them.
 */
final readonly class SharedEvents
{
    /** @param array<string, string|int> $parameters */
    private function __construct(public string $condition, public array $parameters)
    {
    }

    /** A condition on `event e`, and its parameters. */
    public static function of(Batch $batch): self
    {
        $condition = 'e.batch_id = :batch0';
        $parameters = ['batch0' => $batch->id->toRfc4122()];
        for ($generation = 1; $batch->parent !== null && $batch->sharesUpTo !== null; ++$generation) {
            $isBefore = static fn (string $event): string => "($event.at < :split$generation::timestamptz"
                ." OR $event.at = :split$generation::timestamptz AND $event.seq <= :upto$generation)";
            $condition
                .= " OR e.batch_id = :batch$generation AND ("
                .$isBefore('e')
                ." OR e.replaces IN (SELECT o.id FROM event o WHERE o.batch_id = :batch$generation AND "
                .$isBefore('o')
                .'))';
            $parameters += [
                'batch'.$generation => $batch->parent->id->toRfc4122(),
                'split'.$generation => $batch->begunAt->format(\DATE_RFC3339),
                'upto'.$generation => $batch->sharesUpTo,
            ];
            $batch = $batch->parent;
        }

        return new self($condition, $parameters);
    }
}
