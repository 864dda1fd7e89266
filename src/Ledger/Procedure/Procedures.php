<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Procedure;

use Doctrine\DBAL\Connection;
use Symfony\Contracts\Service\ResetInterface;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Record\Procedure;

/** The written procedures of a site: versions, training records, and scans of approvals. */
final class Procedures implements ResetInterface
{
    /** @var array<string, list<ProcedureVersion>> by site */
    private array $known = [];

    public function __construct(private readonly Connection $connection, private readonly Now $now)
    {
    }

    public function reset(): void
    {
        $this->known = [];
    }

    /** @return list<ProcedureVersion> the earliest first */
    public function of(Site $site): array
    {
        return $this->known[$site->id->toRfc4122()] ??= $this->read($site);
    }

    /** @return list<ProcedureVersion> of one kind, the latest first */
    public function ofKind(Site $site, ProcedureKind $kind): array
    {
        return array_reverse(
            array_values(
                array_filter($this->of($site), static fn (ProcedureVersion $one): bool => $one->kind === $kind),
            ),
        );
    }

    public function inForce(Site $site, ProcedureKind $kind): ?ProcedureVersion
    {
        $now = $this->now->instant();
        $inForce = null;
        foreach (array_reverse($this->ofKind($site, $kind)) as $one) {
            if ($one->inForceFrom !== null && !$one->inForceFrom->isAfter($now)) {
                $inForce = $one->comesIntoForce() ? $one : null;
            }
        }

        return $inForce;
    }

    /** @return list<Procedure> each from when it was in force to when another version came, or it was withdrawn */
    public function forRecords(Site $site): array
    {
        $procedures = [];
        foreach (ProcedureKind::cases() as $kind) {
            $versions = array_values(
                array_filter(
                    array_reverse($this->ofKind($site, $kind)),
                    static fn (ProcedureVersion $one): bool => $one->inForceFrom !== null,
                ),
            );
            foreach ($versions as $index => $one) {
                $from = $one->inForceFrom;
                if ($from !== null && $one->comesIntoForce()) {
                    $to = ($versions[$index + 1] ?? null)?->inForceFrom;
                    $procedures[] = new Procedure($kind, $one->number, $one->version, $from, $to);
                }
            }
        }

        return $procedures;
    }

    /** @return list<array{name: string, at: Instant}> */
    public function trained(string $version): array
    {
        /** @var list<array{name: string, at: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT a.name, extract(epoch FROM t.recorded_at)::bigint AS at FROM procedure_training t '
            .'JOIN account a ON a.id = t.account_id WHERE t.version_id = ? ORDER BY t.recorded_at, a.name',
            [$version],
        );

        return array_map(static fn (array $row): array => ['at' => Instant::ofEpoch($row['at'])] + $row, $rows);
    }

    public function isTrained(Account $who, string $version): bool
    {
        return $this->connection->fetchOne(
            'SELECT 1 FROM procedure_training WHERE version_id = ? AND account_id = ?',
            [$version, $who->id->toRfc4122()],
        ) !== false;
    }

    /** @return list<array{id: string, name: string, type: string, sha256: string, by: string}> */
    public function scans(string $version): array
    {
        /** @var list<array{id: string, name: string, type: string, sha256: string, by: string}> */
        return $this->connection->fetchAllAssociative(
            'SELECT id, name, type, sha256, initials AS by FROM procedure_scan WHERE version_id = ? '
            .'ORDER BY recorded_at',
            [$version],
        );
    }

    /** @return array{name: string, type: string, content: string, sha256: string}|null of this site */
    public function scan(Site $site, string $id): ?array
    {
        /** @var array{name: string, type: string, sha256: string, content: resource|string}|false $row */
        $row = $this->connection->fetchAssociative(
            'SELECT name, type, sha256, content FROM procedure_scan WHERE site_id = ? AND id = ?',
            [$site->id->toRfc4122(), $id],
        );

        if ($row === false) {
            return null;
        }
        $content = $row['content'];

        return [
            'name' => $row['name'],
            'type' => $row['type'],
            'sha256' => $row['sha256'],
            'content' => \is_string($content) ? $content : (string) stream_get_contents($content),
        ];
    }

    /** @return list<ProcedureVersion> */
    private function read(Site $site): array
    {
        /**
         * @var list<array{id: string, kind: string, number: string, version: int, body: string, from: int|null,
         *     is_withdrawn: bool, approved_by: string, approved_on: string|null, approval_number: string,
         *     reason: string, by: string, at: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT id, kind, number, version, body, extract(epoch FROM in_force_from)::bigint AS from, is_withdrawn, '
            .'approved_by, approved_on::text AS approved_on, approval_number, reason, initials AS by, '
            .'extract(epoch FROM recorded_at)::bigint AS at FROM procedure_version WHERE site_id = ? ORDER BY seq',
            [$site->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): ProcedureVersion => new ProcedureVersion(
                $row['id'],
                ProcedureKind::from($row['kind']),
                $row['number'],
                $row['version'],
                $row['body'],
                $row['from'] === null ? null : Instant::ofEpoch($row['from']),
                $row['is_withdrawn'],
                $row['approved_by'],
                $row['approved_on'] === null ? null : LocalDate::ofIso($row['approved_on']),
                $row['approval_number'],
                $row['reason'],
                $row['by'],
                Instant::ofEpoch($row['at']),
            ),
            $rows,
        );
    }
}
