<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** The signatures of the days of a packet, and the days that lack one. */
final readonly class PacketSignatures
{
    public function __construct(private Connection $connection, private SiteDays $days)
    {
    }

    /**
     * @return list<array{day: string, at: Instant, by: string, name: string, digest: string, until: Instant|null,
     *     reasons: list<string>}> by day
     */
    public function of(Site $site, PacketScope $scope): array
    {
        /**
         * @var list<array{day: string, at: int, by: string, name: string, digest: string, until: int|null,
         *     reasons: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT s.day::text AS day, extract(epoch FROM s.at)::bigint AS at, s.initials AS by, a.name, s.digest,
              extract(epoch FROM s.until)::bigint AS until, s.reasons
              FROM day_sign s JOIN account a ON a.id = s.account_id
            WHERE s.site_id = ? AND s.day BETWEEN ? AND ? ORDER BY s.day, s.at
            SQL,
            [$site->id->toRfc4122(), $scope->from, $scope->to],
        );

        return array_map(static function (array $row): array {
            /** @var array<string, string> $reasons */
            $reasons = (array) json_decode($row['reasons'], true, flags: \JSON_THROW_ON_ERROR);

            return [
                'at' => Instant::ofEpoch($row['at']),
                'until' => $row['until'] === null ? null : Instant::ofEpoch($row['until']),
                'reasons' => array_values($reasons),
            ] + $row;
        }, $rows);
    }

    /** @return list<LocalDate> days with entries that were not signed as a whole by as many people as the site asks */
    public function missing(Site $site, PacketScope $scope): array
    {
        $asked = $site->asksSecondSignature ? 2 : 1;
        /** @var list<string> $days */
        $days = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT d.day::text FROM (
                SELECT day FROM day_close WHERE site_id = :site AND day BETWEEN :from AND :to
                UNION SELECT CAST(:opened AS date) WHERE CAST(:opened AS date) BETWEEN :from AND :to
            ) d WHERE (
                SELECT count(DISTINCT s.account_id) FROM day_sign s
                WHERE s.site_id = :site AND s.day = d.day AND s.until IS NULL
            ) < :asked ORDER BY d.day
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'from' => $scope->from,
                'to' => $scope->to,
                'opened' => $this->days->opened($site)?->iso(),
                'asked' => $asked,
            ],
        );

        return array_values(array_filter(array_map(LocalDate::ofIso(...), $days)));
    }
}
