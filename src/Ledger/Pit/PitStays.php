<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Pit;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\SharedEvents;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Measure\Instant;

/** Which batches were on the heat in which pit, and when. */
final readonly class PitStays
{
    private const LONGEST_DAYS = 4;

    public function __construct(private Connection $connection)
    {
    }

    /** The pit a batch was in at a moment: where its last stage until then is a cook in one. */
    public function pitAt(Batch $batch, Instant $at): ?string
    {
        $shared = SharedEvents::of($batch);
        $pit = $this->connection->fetchOne(
            <<<SQL
            SELECT CASE WHEN e.type = 'cook' THEN e.members->>'pit' END FROM event e
            WHERE ($shared->condition) AND e.type IN (:stages) AND e.at <= :at
              AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            ORDER BY e.at DESC, e.seq DESC LIMIT 1
            SQL,
            $shared->parameters + ['stages' => EventKinds::stages(), 'at' => $at->rfc3339()],
            ['stages' => ArrayParameterType::STRING],
        );

        return \is_string($pit) ? $pit : null;
    }

    /**
     * @return list<string> ids of the batches that were put into a pit in the days before a moment: those that may have
     *     been in it then
     */
    public function mayHaveBeenIn(Pit $pit, Instant $at): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT DISTINCT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id
            WHERE b.site_id = :site AND e.type = 'cook' AND lower(e.members->>'pit') = lower(:pit)
              AND e.at <= :at AND e.at > :at::timestamptz - make_interval(days => :days)
            SQL,
            [
                'site' => $pit->site->id->toRfc4122(),
                'pit' => $pit->name,
                'at' => $at->rfc3339(),
                'days' => self::LONGEST_DAYS,
            ],
        );
    }
}
