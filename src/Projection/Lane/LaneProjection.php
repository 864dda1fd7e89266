<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Projection;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\OpenActions;

/** The rows behind the lanes of the board. */
final readonly class LaneProjection implements Projection
{
    public function __construct(private Connection $connection, private Forecasts $forecasts)
    {
    }

    public function shape(): string
    {
        return 'lane '.LaneFacts::VERSION;
    }

    public function write(Batch $batch, Assessment $assessment): void
    {
        $cook = $this->forecasts->cook($batch, $assessment);
        $fall = $this->forecasts->fall($batch, $assessment);
        $facts = LaneFacts::pack($assessment, $cook, $fall);
        if ($this->forecasts->mayBeEarlier() && $cook === null && $fall === null) {
            $facts = LaneFacts::withForecastsOf($this->facts($batch), $facts);
        }
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO board_lane (batch_id, site_id, tag, ended_at, verdict, has_open_action, facts, version)
            VALUES (:batch, :site, :tag, :ended, :verdict, :open, :facts, nextval('board_version'))
            ON CONFLICT (batch_id) DO UPDATE
            SET ended_at = excluded.ended_at, verdict = excluded.verdict, has_open_action = excluded.has_open_action,
                facts = excluded.facts, version = excluded.version
            SQL,
            [
                'batch' => $batch->id->toRfc4122(),
                'site' => $batch->site->id->toRfc4122(),
                'tag' => $batch->tag,
                'ended' => $assessment->timeline->end?->rfc3339(),
                'verdict' => $assessment->verdict->value,
                'open' => OpenActions::of($assessment) === [] ? 'false' : 'true',
                'facts' => $facts,
            ],
        );
    }

    private function facts(Batch $batch): ?string
    {
        $facts = $this->connection->fetchOne(
            'SELECT facts FROM board_lane WHERE batch_id = ?',
            [$batch->id->toRfc4122()],
        );

        return \is_string($facts) ? $facts : null;
    }
}
