<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;

/** Who has taken on what is due, so that two do not run and nobody waits for the other. It settles nothing. */
final readonly class Claims
{
    public function __construct(private Connection $connection, private Lanes $lanes, private Now $now)
    {
    }

    /** @return array<string, string> initials, by batch and rule */
    public function of(Site $site): array
    {
        /** @var array<string, string> */
        return $this->connection->fetchAllKeyValue(
            'SELECT c.batch_id || c.rule, a.initials FROM claim c JOIN account a ON a.id = c.account_id '
            .'WHERE a.site_id = ?',
            [$site->id->toRfc4122()],
        );
    }

    public function claim(Batch $batch, string $rule, Account $by): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO claim (batch_id, rule, account_id, at) VALUES (?, ?, ?, ?)
            ON CONFLICT (batch_id, rule) DO UPDATE SET account_id = excluded.account_id, at = excluded.at
            SQL,
            [$batch->id->toRfc4122(), $rule, $by->id->toRfc4122(), $this->now->instant()->rfc3339()],
        );
        $this->lanes->touch($batch);
    }
}
