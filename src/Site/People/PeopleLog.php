<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * Actions outside the record: logins and failures, exports, shares, packets opened; with changes of settings and
 * people. For managers; no part of the record, and without secrets.
 */
final readonly class PeopleLog
{
    public function __construct(private Connection $connection, private RequestStack $requests, private Now $now)
    {
    }

    /**
     * @param Account|null $by null without an account
     * @param string $what the key of its words under `people.log.what`
     * @param string $about its subject, in few words
     */
    public function note(string $siteId, ?Account $by, string $what, string $about = ''): void
    {
        $this->connection->insert('people_log', [
            'id' => Uuid::v7()->toRfc4122(),
            'site_id' => $siteId,
            'account_id' => $by?->id->toRfc4122(),
            'at' => $this->now->instant()->rfc3339(),
            'what' => $what,
            'about' => mb_substr($about, 0, 200),
            'address' => $this->requests->getMainRequest()?->getClientIp() ?? '',
        ]);
    }

    /** @return Page<PeopleLogLine> the latest first */
    public function of(Site $site, ?PageKey $after): Page
    {
        /** @var list<array{id: string, at: int, by: string, what: string, about: string, address: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT id, extract(epoch FROM at)::bigint AS at, by, what, about, address FROM (
                SELECT l.id, l.at, coalesce(a.initials, '') AS by, l.what, l.about, l.address
                FROM people_log l LEFT JOIN account a ON a.id = l.account_id WHERE l.site_id = :site
                UNION ALL
                SELECT id, recorded_at, initials, 'settings', reason, '' FROM site_change WHERE site_id = :site
                UNION ALL
                SELECT c.id, c.recorded_at, c.initials, 'person_' || c.what, a.name, ''
                FROM account_change c JOIN account a ON a.id = c.subject_id WHERE c.site_id = :site
                UNION ALL
                SELECT d.id, d.registered_at, a.initials, 'device', d.name, ''
                FROM device d JOIN account a ON a.id = d.registered_by WHERE d.site_id = :site
            ) of_people
            WHERE (at, id) < (to_timestamp(:place), :id::uuid) ORDER BY at DESC, id DESC LIMIT :most
            SQL,
            ['site' => $site->id->toRfc4122()] + ($after ?? PageKey::first())->parameters(),
        );

        return Page::of(
            array_map(
                static fn (array $row): PeopleLogLine => new PeopleLogLine(
                    $row['id'],
                    Instant::ofEpoch($row['at']),
                    $row['by'],
                    $row['what'],
                    $row['about'],
                    $row['address'],
                ),
                $rows,
            ),
            static fn (PeopleLogLine $line): PageKey => new PageKey($line->at->epoch, $line->id),
        );
    }
}
