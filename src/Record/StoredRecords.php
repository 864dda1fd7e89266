<?php

declare(strict_types=1);

namespace Verjuicer\App\Record;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Batch\Batch;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;

/** Builds the record of a batch from its rows, through the same reader as a file. */
final readonly class StoredRecords
{
    public function __construct(private Connection $connection, private Reader $reader)
    {
    }

    public function of(Batch $batch): Record
    {
        return $this->reader->readData($this->data($batch));
    }

    private function data(Batch $batch): \stdClass
    {
        return (object) [
            'format' => Reader::FORMAT,
            'site' => (object) [
                'name' => $batch->site->name,
                'timezone' => $batch->site->timezone,
                'unit' => $batch->site->unit->value,
                'elevation_m' => $batch->site->elevationM,
            ],
            'rules' => $batch->ruleSet,
            'thermometers' => $this->list(<<<'SQL'
                SELECT jsonb_agg(jsonb_build_object('id', t.label, 'checks', (
                    SELECT coalesce(jsonb_agg(jsonb_build_object(
                        'at', to_char(c.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
                        'method', c.method, 'expected', c.expected, 'read', c.read
                    ) ORDER BY c.seq), '[]')
                    FROM thermometer_check c WHERE c.thermometer_id = t.id
                )) ORDER BY t.label)
                FROM thermometer t
                WHERE t.site_id = :site
                  AND t.label IN (SELECT members->>'thermometer' FROM event WHERE batch_id = :batch AND type = 'reading')
                SQL, ['batch' => $batch->id->toRfc4122(), 'site' => $batch->site->id->toRfc4122()]),
            'batch' => (object) [
                'code' => $batch->code,
                'tag' => $batch->tag,
                'product' => (object) [
                    'name' => $batch->productName,
                    'animal' => $batch->animal->value,
                    'form' => $batch->form->value,
                    'integrity' => $batch->integrity->value,
                    'raw_weight_kg' => $batch->rawGrams === null ? null : $batch->rawGrams / 1000,
                    'pieces' => $batch->pieces,
                    'stuffed' => $batch->isStuffed || $this->wasStuffed($batch),
                    'wild' => $batch->isWild,
                    'advisory' => $batch->hasAdvisory,
                ],
                'events' => $this->list(<<<'SQL'
                    SELECT jsonb_agg(members || jsonb_strip_nulls(jsonb_build_object(
                        'id', id,
                        'at', to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
                        'by', initials,
                        'type', type,
                        'replaces', replaces,
                        'reason', reason,
                        'recorded_at', to_char(recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')
                    )) ORDER BY seq)
                    FROM event WHERE batch_id = :batch
                    SQL, ['batch' => $batch->id->toRfc4122()]),
            ],
        ];
    }

    /** Whether anybody wrote down, and did not take back, that it was stuffed after it was begun. */
    private function wasStuffed(Batch $batch): bool
    {
        return $this->connection->fetchOne(<<<'SQL'
            SELECT 1 FROM event e WHERE batch_id = ? AND type = 'tenderize' AND members->>'stuffed' = 'true'
              AND NOT EXISTS (SELECT 1 FROM event WHERE batch_id = e.batch_id AND replaces = e.id)
            SQL, [$batch->id->toRfc4122()]) !== false;
    }

    /**
     * @param array<string, string> $parameters
     *
     * @return array<mixed>
     */
    private function list(string $sql, array $parameters): array
    {
        $json = $this->connection->fetchOne($sql, $parameters);
        $list = \is_string($json) ? json_decode($json, flags: \JSON_THROW_ON_ERROR) : [];

        return \is_array($list) ? $list : [];
    }

    /** When an event was recorded, which may be well after it happened. */
    public static function recordedAt(Event $event): ?Instant
    {
        $recorded = $event->unknown['recorded_at'] ?? null;

        return \is_string($recorded) ? Instant::parse($recorded) : null;
    }
}
