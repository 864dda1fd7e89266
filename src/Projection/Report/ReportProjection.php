<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Report;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Projection;
use Verjuicer\Core\Assess\Assessment;

/**
 * The tables behind searches, recalls, daily logs and trends: the result of each batch, its stages, rules and
 * deviations.
 */
final readonly class ReportProjection implements Projection
{
    private const VERSION = 1;

    public function __construct(private Connection $connection)
    {
    }

    public function shape(): string
    {
        return 'report '.self::VERSION;
    }

    public function write(Batch $batch, Assessment $assessment): void
    {
        $id = $batch->id->toRfc4122();
        $stage = $assessment->timeline->stage();
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO batch_report (batch_id, site_id, verdict, ended_at, stage, place) VALUES (?, ?, ?, ?, ?, ?)
            ON CONFLICT (batch_id) DO UPDATE
            SET verdict = excluded.verdict, ended_at = excluded.ended_at, stage = excluded.stage, place = excluded.place
            SQL,
            [
                $id,
                $batch->site->id->toRfc4122(),
                $assessment->verdict->value,
                $assessment->timeline->end?->rfc3339(),
                $stage?->name(),
                $stage?->place(),
            ],
        );
        foreach (['stage_report', 'rule_report', 'deviation'] as $table) {
            $this->connection->executeStatement("DELETE FROM $table WHERE batch_id = ?", [$id]);
        }
        $stages = $rules = $deviations = [];
        foreach ($assessment->timeline->stages as $one) {
            $stages[] = [
                $id,
                $one->index,
                $one->name(),
                $one->from->rfc3339(),
                $one->isOpen ? null : $one->to->rfc3339(),
                $one->place(),
            ];
        }
        foreach ($assessment->rulesJudged as $rule => $verdict) {
            $rules[$rule] = [$id, $rule, $verdict->value];
        }
        foreach ($assessment->findings as $finding) {
            if (!$finding->isJudged()) {
                $rules[$finding->rule] = [$id, $finding->rule, null];
            }
        }
        foreach (Deviation::of($assessment) as $one) {
            $deviations[] = [$id, $one->rule, $one->at?->rfc3339(), $one->unit];
        }
        $this->insert('stage_report (batch_id, place_in_order, stage, from_at, to_at, place)', $stages);
        $this->insert('rule_report (batch_id, rule, verdict)', array_values($rules));
        $this->insert('deviation (batch_id, rule, at, unit)', $deviations);
    }

    /** @param list<list<string|int|null>> $rows */
    private function insert(string $into, array $rows): void
    {
        if ($rows !== []) {
            $row = '('.implode(', ', array_fill(0, \count($rows[0]), '?')).')';
            $values = implode(', ', array_fill(0, \count($rows), $row));
            $this->connection->executeStatement("INSERT INTO $into VALUES $values", array_merge(...$rows));
        }
    }
}
