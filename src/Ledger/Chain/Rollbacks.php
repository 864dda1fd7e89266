<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Proof\Statement;

/**
 * Databases that were put back to an earlier moment. Each rollback is a link of the chain, signed with the key of the
 * site: without the key nobody can explain a chain that was cut.
 */
final readonly class Rollbacks
{
    public function __construct(
        private Connection $connection,
        private Ledger $ledger,
        private SiteChain $chain,
        private SiteKeys $keys,
        private Now $now,
    ) {
    }

    /** @return list<Rollback> those signed with a key of the site, the earliest first */
    public function of(Site $site): array
    {
        /** @var list<array{kept: int, cut: int, digest: string, saved: int, signature: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT kept_position AS kept, cut_position AS cut, cut_digest AS digest, signature, '
            .'extract(epoch FROM saved_at)::bigint AS saved FROM chain_rollback WHERE site_id = ? ORDER BY recorded_at',
            [$site->id->toRfc4122()],
        );
        $keys = $this->keys->publicKeys($site);
        $found = [];
        foreach ($rows as $row) {
            $words = Statement::rollback(
                $site->id->toRfc4122(),
                $row['kept'],
                $row['cut'],
                $row['digest'],
                $row['saved'],
            );
            if (Statement::isSignedByAny($keys, $words, $row['signature'])) {
                $found[] = new Rollback($row['kept'], $row['cut'], $row['saved']);
            }
        }

        return $found;
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
