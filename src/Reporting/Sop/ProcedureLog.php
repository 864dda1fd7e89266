<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Sop;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** Puts in writing: versions, trainings and scans are only ever added. */
final readonly class ProcedureLog
{
    public function __construct(
        private Connection $connection,
        private Ledger $ledger,
        private Procedures $procedures,
        private Now $now,
    ) {
    }

    /**
     * @param array{number: string, body: string, from: Instant|null, withdrawn: bool, approved_by: string,
     *     approved_on: LocalDate|null, approval_number: string, reason: string} $said
     */
    public function add(Uuid $id, Account $by, ProcedureKind $kind, array $said): void
    {
        $this->ledger->write($by->site, fn () => $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO procedure_version (id, site_id, kind, number, version, body, in_force_from, is_withdrawn,
              approved_by, approved_on, approval_number, reason, account_id, initials, recorded_at)
            SELECT :id, :site, :kind, :number, coalesce(max(version), 0) + 1, :body, :from, :withdrawn, :approved_by,
              :approved_on, :approval_number, :reason, :account, :initials, :now
            FROM procedure_version WHERE site_id = :site AND kind = :kind
            ON CONFLICT (id) DO NOTHING
            SQL,
            [
                'id' => $id->toRfc4122(),
                'site' => $by->site->id->toRfc4122(),
                'kind' => $kind->value,
                'number' => $said['number'],
                'body' => $said['body'],
                'from' => $said['from']?->rfc3339(),
                'withdrawn' => $said['withdrawn'],
                'approved_by' => $said['approved_by'],
                'approved_on' => $said['approved_on']?->iso(),
                'approval_number' => $said['approval_number'],
                'reason' => $said['reason'],
                'account' => $by->id->toRfc4122(),
                'initials' => $by->initials,
                'now' => $this->now->instant()->rfc3339(),
            ],
            ['withdrawn' => ParameterType::BOOLEAN],
        ));
        $this->procedures->reset();
    }

    /** A person signs that they have read it and were trained. */
    public function train(Uuid $id, Account $who, string $version): void
    {
        $this->ledger->write($who->site, fn () => $this->connection->executeStatement(
            'INSERT INTO procedure_training (id, site_id, version_id, account_id, initials, recorded_at) '
            .'VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING',
            [
                $id->toRfc4122(),
                $who->site->id->toRfc4122(),
                $version,
                $who->id->toRfc4122(),
                $who->initials,
                $this->now->instant()->rfc3339(),
            ],
        ));
    }

    public function attach(Uuid $id, Account $by, string $version, string $name, string $type, string $content): void
    {
        $this->ledger->write($by->site, fn () => $this->connection->executeStatement(
            'INSERT INTO procedure_scan (id, site_id, version_id, name, type, sha256, content, account_id, initials, '
            .'recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
            [
                $id->toRfc4122(),
                $by->site->id->toRfc4122(),
                $version,
                $name,
                $type,
                hash('sha256', $content),
                $content,
                $by->id->toRfc4122(),
                $by->initials,
                $this->now->instant()->rfc3339(),
            ],
            [6 => ParameterType::LARGE_OBJECT],
        ));
    }
}
