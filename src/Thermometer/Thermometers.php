<?php

declare(strict_types=1);

namespace Verjuicer\App\Thermometer;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Batch\Batch;
use Verjuicer\App\Site\Site;

/** The thermometers of a site, as entries need them. */
final readonly class Thermometers
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<string> */
    public function labels(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn('SELECT label FROM thermometer WHERE site_id = ? ORDER BY label', [$site->id->toRfc4122()]);
    }

    /** The thermometer this batch was last read with. */
    public function lastUsedIn(Batch $batch): ?string
    {
        $label = $this->connection->fetchOne(
            "SELECT members->>'thermometer' FROM event WHERE batch_id = ? AND type = 'reading' AND members->>'thermometer' IS NOT NULL ORDER BY seq DESC LIMIT 1",
            [$batch->id->toRfc4122()],
        );

        return \is_string($label) ? $label : null;
    }
}
