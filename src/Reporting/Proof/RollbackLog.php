<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Proof\Statement;

/** Writes down, signed with the key of the site, that its chain was put back. */
final readonly class RollbackLog
{
    public function __construct(
        private Connection $connection,
        private Ledger $ledger,
        private SiteChain $chain,
        private SiteKeys $keys,
        private Now $now,
    ) {
    }

    /**
     * Records that the chain was put back to where it ends now. Once for each saved database.
     *
     * @param Seal $cut where the chain ended when the database was saved
     */
    public function record(Site $site, Seal $cut, Instant $savedAt): void
    {
        $this->ledger->write($site, function () use ($site, $cut, $savedAt): void {
            $siteId = $site->id->toRfc4122();
            $kept = $this->chain->length($site);
            $this->connection->executeStatement(
                'INSERT INTO chain_rollback (id, site_id, kept_position, cut_position, cut_digest, saved_at, '
                .'signature, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
                [
                    Uuid::v5($site->id, "rollback {$cut->digest} {$savedAt->epoch}")->toRfc4122(),
                    $siteId,
                    $kept,
                    $cut->position,
                    $cut->digest,
                    $savedAt->rfc3339(),
                    $this->keys->sign(
                        $site,
                        Statement::rollback($siteId, $kept, $cut->position, $cut->digest, $savedAt->epoch),
                    ),
                    $this->now->instant()->rfc3339(),
                ],
            );
        }, trusts: true);
    }
}
