<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
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
        [$ofBatch, $parameters] = self::shared($batch);

        return (object) [
            'format' => Reader::FORMAT,
            'site' => (object) [
                'name' => $batch->site->name,
                'timezone' => $batch->site->timezone,
                'unit' => $batch->site->unit->value,
                'elevation_m' => $batch->site->elevationM,
            ],
            'rules' => $batch->ruleSet,
            // Of years of checks, those that say anything of these readings: from the last before the first to the first after the last.
            'thermometers' => $this->list(<<<SQL
                WITH mine AS MATERIALIZED (SELECT e.at, e.type, e.members->>'thermometer' AS label FROM event e WHERE $ofBatch), span AS (SELECT min(at) AS first, max(at) AS last FROM mine)
                SELECT jsonb_agg(jsonb_build_object('id', t.label, 'checks', (
                    SELECT coalesce(jsonb_agg(jsonb_build_object(
                        'at', to_char(c.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
                        'method', c.method, 'expected', c.expected, 'read', c.read
                    ) ORDER BY c.seq), '[]')
                    FROM thermometer_check c WHERE c.thermometer_id = t.id
                      AND c.at >= coalesce((SELECT max(p.at) FROM thermometer_check p WHERE p.thermometer_id = t.id AND p.at <= span.first), '-infinity')
                      AND c.at <= coalesce((SELECT min(n.at) FROM thermometer_check n WHERE n.thermometer_id = t.id AND n.at > span.last), 'infinity')
                )) ORDER BY t.label)
                FROM thermometer t, span
                WHERE t.site_id = :site
                  AND t.label IN (SELECT label FROM mine WHERE type = 'reading')
                SQL, $parameters + ['site' => $batch->site->id->toRfc4122()]),
            'batch' => (object) [
                'code' => $batch->code,
                'tag' => $batch->tag,
                'portion_of' => $batch->parent?->code,
                'portion_weight_kg' => $batch->portionGrams === null ? null : $batch->portionGrams / 1000,
                'container' => $batch->container,
                'depth_mm' => $batch->depthMm,
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
                'events' => $this->events($batch),
            ],
        ];
    }

    /**
     * Its own events; before them, of a portion, those it shares with what it was split off: up to the one that divided it, and every later
     * correction of those.
     *
     * @return array<mixed>
     */
    private function events(Batch $batch): array
    {
        [$ofBatch, $parameters] = self::shared($batch);

        return $this->list(<<<SQL
            SELECT jsonb_agg(members || jsonb_strip_nulls(jsonb_build_object(
                'id', id,
                'at', to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
                'by', initials,
                'type', type,
                'replaces', replaces,
                'reason', reason,
                'recorded_at', to_char(recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')
            )) ORDER BY seq)
            FROM event e WHERE $ofBatch
            SQL, $parameters);
    }

    /** Whether anybody wrote down, and did not take back, that it was stuffed after it was begun. */
    private function wasStuffed(Batch $batch): bool
    {
        [$ofBatch, $parameters] = self::shared($batch);

        return $this->connection->fetchOne(<<<SQL
            SELECT 1 FROM event e WHERE ($ofBatch) AND type = 'tenderize' AND members->>'stuffed' = 'true'
              AND NOT EXISTS (SELECT 1 FROM event WHERE batch_id = e.batch_id AND replaces = e.id)
            SQL, $parameters) !== false;
    }

    /** @return list<array{piece: int, spot: string}> where the pieces of a batch were read, the latest reading first, each place once */
    public function spotsRead(Batch $batch): array
    {
        [$ofBatch, $parameters] = self::shared($batch);

        /** @var list<array{piece: int, spot: string}> */
        return $this->connection->fetchAllAssociative(<<<SQL
            SELECT (e.members->>'piece')::int AS piece, e.members->>'spot' AS spot FROM event e
            WHERE ($ofBatch) AND e.type = 'reading' AND NOT EXISTS (SELECT 1 FROM event o WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            GROUP BY 1, 2 ORDER BY max(e.at) DESC, max(e.seq) DESC
            SQL, $parameters);
    }

    /** @return array{string, array<string, string|int>} a condition on events, and its parameters */
    private static function shared(Batch $batch): array
    {
        $condition = 'e.batch_id = :batch0';
        $parameters = ['batch0' => $batch->id->toRfc4122()];
        for ($generation = 1; $batch->parent !== null && $batch->sharesUpTo !== null; ++$generation) {
            $condition .= " OR e.batch_id = :batch$generation AND (e.seq <= :upto$generation OR e.replaces IN (SELECT o.id FROM event o WHERE o.batch_id = :batch$generation AND o.seq <= :upto$generation))";
            $parameters += ['batch'.$generation => $batch->parent->id->toRfc4122(), 'upto'.$generation => $batch->sharesUpTo];
            $batch = $batch->parent;
        }

        return [$condition, $parameters];
    }

    /**
     * @param array<string, string|int> $parameters
     *
     * @return array<mixed>
     */
    private function list(string $sql, array $parameters): array
    {
        $json = $this->connection->fetchOne($sql, $parameters);
        $list = \is_string($json) ? json_decode($json, flags: \JSON_THROW_ON_ERROR) : [];

        return \is_array($list) ? $list : [];
    }

    /**
     * An event out of a file, as it is taken in here: recorded by whoever takes it in, at that time. What the file says of that stands beside it.
     *
     * @param array<string, string> $ids its new id, and that of what it replaces, where they are not kept
     */
    public static function imported(Event $event, string $importer, array $ids = []): Event
    {
        $before = $event->unknown['imported'] ?? null;
        $says = $before instanceof \stdClass && \is_string($before->says_recorded_at ?? null) ? $before->says_recorded_at : $event->unknown['recorded_at'] ?? null;
        $imported = (object) (['by' => $importer] + (self::isMoment($says) ? ['says_recorded_at' => $says] : []));

        return new Event(
            $ids[$event->id] ?? $event->id,
            $event->at,
            $event->by,
            $event->type,
            $event->detail,
            $event->replaces === null ? null : $ids[$event->replaces] ?? $event->replaces,
            $event->reason,
            ['imported' => $imported] + array_diff_key($event->unknown, ['recorded_at' => true]),
        );
    }

    private static function isMoment(mixed $says): bool
    {
        try {
            return \is_string($says) && Instant::parse($says)->epoch > 0;
        } catch (MalformedInstant) {
            return false;
        }
    }

    /** When an event was recorded, which may be well after it happened. */
    public static function recordedAt(Event $event): ?Instant
    {
        $recorded = $event->unknown['recorded_at'] ?? null;

        return \is_string($recorded) ? Instant::parse($recorded) : null;
    }
}
