<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\Events;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Instant;

/**
 * Corrections of facts recorded when a batch was begun: its row stays unchanged, corrections are rows of their own with
 * a reason, and a batch is loaded with them.
 */
#[AsEntityListener(event: Events::postLoad, method: 'putRight', entity: Batch::class)]
final readonly class BatchFacts
{
    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /**
     * For a batch and all that was split off it; within a write.
     *
     * @param Uuid $id made by the client: the same again is kept once
     * @param array<string, string|int|bool|null> $facts corrected values, by their name in `Batch`
     */
    public function keep(Uuid $id, Batch $batch, Account $by, array $facts, string $reason): void
    {
        foreach ($this->family($batch) as $one) {
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO batch_fact (id, site_id, batch_id, recorded_at, account_id, initials, facts, reason)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING
                SQL,
                [
                    Uuid::v5($id, $one)->toRfc4122(),
                    $batch->site->id->toRfc4122(),
                    $one,
                    $this->now->instant()->rfc3339(),
                    $by->id->toRfc4122(),
                    $by->initials,
                    json_encode($facts, \JSON_THROW_ON_ERROR),
                    $reason,
                ],
            );
        }
        $this->putRight($batch);
    }

    /** Whether it was kept under this id already. */
    public function isKept(Uuid $id, Batch $batch): bool
    {
        $kept = 'SELECT 1 FROM batch_fact WHERE id = ?';

        return $this->connection->fetchOne($kept, [Uuid::v5($id, $batch->id->toRfc4122())->toRfc4122()]) !== false;
    }

    /**
     * @return list<array{at: Instant, by: string, facts: array<string, string|int|bool|null>, reason: string}> the
     *     latest first
     */
    public function of(Batch $batch): array
    {
        /** @var list<array{at: int, by: string, facts: string, reason: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT extract(epoch FROM recorded_at)::bigint AS at, initials AS by, facts, reason FROM batch_fact
              WHERE batch_id = ? ORDER BY seq DESC
            SQL,
            [$batch->id->toRfc4122()],
        );

        return array_map(static function (array $row): array {
            /** @var array<string, string|int|bool|null> $facts */
            $facts = json_decode($row['facts'], true, flags: \JSON_THROW_ON_ERROR);

            return ['at' => Instant::ofEpoch($row['at']), 'facts' => $facts] + $row;
        }, $rows);
    }

    public function putRight(Batch $batch): void
    {
        foreach (array_reverse($this->of($batch)) as $row) {
            foreach ($row['facts'] as $name => $value) {
                match (true) {
                    $name === 'productName' && \is_string($value) => ($batch->productName = $value),
                    $name === 'animal' && \is_string($value) => ($batch->animal = Animal::from($value)),
                    $name === 'form' && \is_string($value) => ($batch->form = Form::from($value)),
                    $name === 'integrity' && \is_string($value) => ($batch->integrity = Integrity::from($value)),
                    $name === 'pieces' && \is_int($value) => ($batch->pieces = $value),
                    $name === 'rawGrams' && !\is_string($value) => ($batch->rawGrams = \is_int($value) ? $value : null),
                    $name === 'isStuffed' => ($batch->isStuffed = (bool) $value),
                    $name === 'isWild' => ($batch->isWild = (bool) $value),
                    $name === 'hasAdvisory' => ($batch->hasAdvisory = (bool) $value),
                    default => null,
                };
            }
        }
    }

    /** @return list<string> ids */
    private function family(Batch $batch): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            <<<'SQL'
            WITH RECURSIVE family AS (
                SELECT id FROM batch WHERE id = ?
                UNION SELECT b.id FROM batch b JOIN family f ON b.parent_id = f.id
            ) SELECT id FROM family
            SQL,
            [$batch->id->toRfc4122()],
        );
    }
}
