<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;

/**
 * Databases restored to an earlier moment. Each rollback is a link of the chain, signed with the site's key: without
 * the key a shortened chain cannot be explained.
 */
final readonly class Rollbacks
{
    public function __construct(
        private Connection $connection,
        private SiteKeys $keys,
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
}
