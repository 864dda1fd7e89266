<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Proof\Statement;

/** Whether each signature under a day was made by the application, after it asked for the password. */
final readonly class SignedDays
{
    public function __construct(private Connection $connection, private KeyLog $keys)
    {
    }

    /** @return list<array{LocalDate, string}> day and initials of those that were not, since the first that was */
    public function unproved(Site $site): array
    {
        /**
         * @var list<array{id: string, day: string, initials: string, account_id: string, position: int,
         *     digest: string, at: int, proof: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT s.id, s.day::text AS day, s.initials, s.account_id, s.position, s.digest,
                   extract(epoch FROM s.at)::bigint AS at, s.proof
            FROM day_sign s JOIN chain_link l ON l.kind = 'day_sign' AND l.row_id = s.id
            WHERE s.site_id = ? ORDER BY l.position
            SQL,
            [$site->id->toRfc4122()],
        );
        $keys = array_column($this->keys->of($site), 'publicKey');
        $isProved = false;
        $found = [];
        foreach ($rows as $row) {
            $said = Statement::daySigned(
                $site->id->toRfc4122(),
                $row['id'],
                $row['day'],
                $row['account_id'],
                $row['position'],
                $row['digest'],
                $row['at'],
            );
            $isOurs = Statement::isSignedByAny($keys, $said, $row['proof']);
            $isProved = $isProved || $isOurs;
            $day = LocalDate::ofIso($row['day']);
            if ($isProved && !$isOurs && $day !== null) {
                $found[] = [$day, $row['initials']];
            }
        }

        return $found;
    }
}
