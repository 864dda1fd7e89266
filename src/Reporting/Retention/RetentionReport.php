<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Retention;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\LocalDate;

/** The records of a site, and until when it must keep them. It only counts: no function removes a record. */
final readonly class RetentionReport
{
    /**
     * Each kind with its rows: when each began, and the day from which its time runs: a batch's from its end, as long
     * as it is open it has not begun.
     */
    private const KINDS = [
        'batches' => 'SELECT b.begun_at AS begun, coalesce(r.ended_at, :today) AS at, b.site_id '
.'FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id',
        'deliveries' => 'SELECT at AS begun, at, site_id FROM lot',
        'thermometer_checks' => 'SELECT c.at AS begun, c.at, t.site_id '
.'FROM thermometer_check c JOIN thermometer t ON t.id = c.thermometer_id',
        'pits' => 'SELECT at AS begun, at, site_id FROM site_event',
        'day_sheets' => 'SELECT at AS begun, at, site_id FROM day_sign',
    ];

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<RetainedRecords> */
    public function of(Site $site, LocalDate $today): array
    {
        return array_map(
            fn (string $kind): RetainedRecords => $this->kind($site, $today, $kind),
            array_keys(self::KINDS),
        );
    }

    private function kind(Site $site, LocalDate $today, string $kind): RetainedRecords
    {
        $rows = self::KINDS[$kind];
        $needed = $today
            ->plusMonths(-$site->keepMonths)
            ->startIn($site->zone())
            ->rfc3339();
        /** @var array{count: int, first: string|null, last: string|null, past: int} $row */
        $row = $this->connection->fetchAssociative(
            <<<SQL
            SELECT count(*)::int AS count, (min(begun) AT TIME ZONE :zone)::date::text AS first,
              (max(at) AT TIME ZONE :zone)::date::text AS last, count(*) FILTER (WHERE at < :needed)::int AS past
            FROM ($rows) r WHERE site_id = :site
            SQL,
            ['site' => $site->id->toRfc4122(), 'zone' => $site->timezone, 'needed' => $needed]
                + ($kind === 'batches' ? ['today' => $today->startIn($site->zone())->rfc3339()] : []),
        );
        $last = $row['last'] === null ? null : LocalDate::ofIso($row['last']);

        return new RetainedRecords(
            $kind,
            $row['count'],
            $row['first'] === null ? null : LocalDate::ofIso($row['first']),
            $last,
            $last?->plusMonths($site->keepMonths),
            $row['past'],
        );
    }
}
