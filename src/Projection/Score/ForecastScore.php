<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Score;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Projection;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\ForecastOutcome;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\StatedWindow;
use Verjuicer\Core\Measure\Instant;

/**
 * Saves forecasts shown on the board and the pages, at most one window of a kind per half hour, and scores them once
 * the record shows the outcome. A saved forecast is never remade: a rebuild leaves it unchanged.
 */
final readonly class ForecastScore implements Projection
{
    private const SLOT = 1800; // seconds

    public function __construct(private Connection $connection, private Forecasts $forecasts)
    {
    }

    public function shape(): string
    {
        return 'score 1';
    }

    public function write(Batch $batch, Assessment $assessment): void
    {
        $this->settle($batch, $assessment);
        $now = $assessment->timeline->asOf;
        if ($assessment->timeline->hasEnded() || $this->forecasts->mayBeEarlier()) {
            return;
        }
        $unit = $assessment->record->site->unit;
        $stated = StatedWindow::all(
            $this->forecasts->cook($batch, $assessment),
            $this->forecasts->fall($batch, $assessment),
            Point::celsius($assessment->rules->limits()->hot->threshold->printedIn($unit)),
            $unit,
        );
        foreach ($stated as $one) {
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO forecast_kept (site_id, batch_id, what, slot, track, towards, stated_at, earliest, likely,
                  latest)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING
                SQL,
                [
                    $batch->site->id->toRfc4122(),
                    $batch->id->toRfc4122(),
                    $one->what,
                    intdiv($now->epoch, self::SLOT),
                    $one->track,
                    $one->towards,
                    $now->rfc3339(),
                    $one->window->earliest->rfc3339(),
                    $one->window->likely?->rfc3339(),
                    $one->window->latest?->rfc3339(),
                ],
            );
        }
    }

    private function settle(Batch $batch, Assessment $assessment): void
    {
        /** @var list<array{what: string, slot: int, track: string|null, towards: string, stated: int}> $open */
        $open = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT what, slot, track, towards, extract(epoch FROM stated_at)::bigint AS stated
            FROM forecast_kept WHERE batch_id = ? AND NOT is_over
            SQL,
            [$batch->id->toRfc4122()],
        );
        foreach ($open as $one) {
            $stated = Instant::ofEpoch($one['stated']);
            $came = ForecastOutcome::of($assessment, $one['what'], $one['track'], (float) $one['towards'], $stated);
            if ($came->isOver) {
                $this->connection->executeStatement(
                    'UPDATE forecast_kept SET came_at = ?, is_over = true WHERE batch_id = ? AND what = ? AND slot = ?',
                    [$came->at?->rfc3339(), $batch->id->toRfc4122(), $one['what'], $one['slot']],
                );
            }
        }
    }
}
