<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\App\Ledger\Batch\Batch;

/**
 * Which events are of a batch: its own; before them, of a portion, those it shares with what it was split off: up to the one that divided
 * it, and every later correction of those.
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
            $of = ":batch$generation";
            $upto = ":upto$generation";
            $condition .= " OR e.batch_id = $of AND (e.seq <= $upto"
                ." OR e.replaces IN (SELECT o.id FROM event o WHERE o.batch_id = $of AND o.seq <= $upto))";
            $parameters += ['batch'.$generation => $batch->parent->id->toRfc4122(), 'upto'.$generation => $batch->sharesUpTo];
            $batch = $batch->parent;
        }

        return new self($condition, $parameters);
    }
}
