<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;

/** What was planned of the open batches: for the board, which shows plan and fact in one lane. */
final readonly class PlannedLanes
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array<string, PlannedMoments> by the id of the batch */
    public function of(Site $site): array
    {
        $found = [];
        /** @var array<string, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            <<<'SQL'
            SELECT d.batch_id, d.planned::text FROM plan_dish d JOIN open_tag o ON o.batch_id = d.batch_id
            WHERE o.site_id = ? AND d.planned IS NOT NULL
            SQL,
            [$site->id->toRfc4122()],
        );
        foreach ($rows as $id => $planned) {
            /** @var array{load: int, earliest: int, likely: int, latest: int, serve: int, served: int} $moments */
            $moments = json_decode($planned, true, flags: \JSON_THROW_ON_ERROR);
            $found[$id] = PlannedMoments::of($moments);
        }

        return $found;
    }
}
