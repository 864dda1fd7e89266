<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;

/** Whether the files that were recorded by their SHA-256, packets and scans, are still those. */
final readonly class RecordedFiles
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<string> altered files, in words */
    public function altered(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT 'packet ' || id FROM packet
            WHERE site_id = :site AND pdf IS NOT NULL AND sha256 IS NOT NULL AND encode(sha256(pdf), 'hex') <> sha256
            UNION ALL
            SELECT 'scan ' || name FROM procedure_scan
            WHERE site_id = :site AND encode(sha256(content), 'hex') <> sha256
            SQL,
            ['site' => $site->id->toRfc4122()],
        );
    }
}
