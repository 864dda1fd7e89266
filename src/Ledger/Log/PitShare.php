<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Food\PitSign;

/**
 * Entries at a pit belong to the record of every batch that was in it at that time, however they were entered. They are
 * stored once, with the pit, and joined to a batch's events when its record is made.
 */
final readonly class PitShare
{
    /** On an event that is kept at a pit, not in the batch. */
    public const MARK = 'at_pit';
    private const SHARED = ['pit_reading', 'pit_set', 'note'];

    public function __construct(private Connection $connection)
    {
    }

    /** The id that something entered from a batch has in the log of its pit. */
    public static function idAtPit(Uuid $event): Uuid
    {
        return Uuid::v5($event, 'pit');
    }

    /**
     * @return array{batch: string, event: string}|null where something in the log of a pit was entered, if that was in
     *     a batch
     */
    public function origin(Site $site, SiteEvent $atPit): ?array
    {
        /** @var list<array{batch: string, event: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT e.batch_id AS batch, e.id AS event FROM event e JOIN batch b ON b.id = e.batch_id
            WHERE e.at = :at AND b.site_id = :site AND e.type IN (:types)
            SQL,
            [
                'at' => $atPit->at->rfc3339(),
                'site' => $site->id->toRfc4122(),
                'types' => self::SHARED,
            ],
            ['types' => ArrayParameterType::STRING],
        );
        foreach ($rows as $row) {
            if (self::idAtPit(Uuid::fromString($row['event']))->toRfc4122() === $atPit->id) {
                return $row;
            }
        }

        return null;
    }

    /**
     * @param array<mixed> $events of a batch, in the shape of the open format
     *
     * @return array<mixed> with those of its pits after them
     */
    public function with(Batch $batch, array $events): array
    {
        $stays = self::stays($events);
        if ($stays === []) {
            return $events;
        }
        $own = [];
        foreach ($events as $event) {
            if ($event instanceof \stdClass && \is_string($event->id ?? null)) {
                $own[$event->id] = true;
                if (\in_array($event->type ?? null, self::SHARED, true)) {
                    $own[self::idAtPit(Uuid::fromString($event->id))->toRfc4122()] = true;
                }
            }
        }
        foreach ($this->rows($batch, $stays) as $row) {
            // Before pits were joined, a copy was kept in each batch, under an id made of both.
            $isOwn = isset($own[$row['id']]);
            for ($one = $batch; $one !== null; $one = $one->parent) {
                $isOwn = $isOwn || isset($own[Uuid::v5($one->id, $row['id'])->toRfc4122()]);
            }
            if (!$isOwn && self::isWithin($stays, $row['pit'], $row['at'])) {
                $events[] = self::event($row);
            }
        }

        return $events;
    }

    /**
     * @param array<mixed> $events
     *
     * @return list<array{pit: string, from: string, to: string|null}> times on the heat in a pit, as RFC 3339 in UTC
     */
    private static function stays(array $events): array
    {
        $replaced = $stages = [];
        foreach ($events as $event) {
            if ($event instanceof \stdClass && \is_string($event->replaces ?? null)) {
                $replaced[$event->replaces] = true;
            }
        }
        foreach ($events as $event) {
            $type = $event instanceof \stdClass && \is_string($event->type ?? null) ? $event->type : '';
            if (
                $event instanceof \stdClass
                && EventKinds::named($type)?->beginsStage() === true
                && \is_string($event->at ?? null)
                && \is_string($event->id ?? null)
                && !isset($replaced[$event->id])
            ) {
                $stages[] = $event;
            }
        }
        usort($stages, static fn (\stdClass $one, \stdClass $other): int => $one->at <=> $other->at);
        $stays = [];
        foreach ($stages as $index => $stage) {
            if ($stage->type === 'cook' && \is_string($stage->pit ?? null)) {
                $stays[] = [
                    'pit' => mb_strtolower($stage->pit),
                    'from' => $stage->at,
                    'to' => $stages[$index + 1]->at ?? null,
                ];
            }
        }

        /** @var list<array{pit: string, from: string, to: string|null}> */
        return $stays;
    }

    /**
     * @param non-empty-list<array{pit: string, from: string, to: string|null}> $stays
     *
     * @return list<array{id: string, pit: string, name: string, at: string, recorded_at: string, by: string,
     *     type: string, members: string}>
     */
    private function rows(Batch $batch, array $stays): array
    {
        /**
         * @var list<array{id: string, pit: string, name: string, at: string, recorded_at: string, by: string,
         *     type: string, members: string}>
         */
        return $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT e.id, lower(p.name) AS pit, p.name, e.initials AS by, e.type, e.members,
                   to_char(e.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at,
                   to_char(e.recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS recorded_at
            FROM site_event e JOIN pit p ON p.id = e.subject_id
            WHERE p.site_id = :site AND e.subject = 'pit' AND lower(p.name) IN (:pits) AND e.at >= :from
              AND e.at <= :to AND e.type <> 'void'
              AND NOT EXISTS (SELECT 1 FROM site_event o WHERE o.subject_id = e.subject_id
                AND o.members->>'replaces' = e.id::text)
            ORDER BY e.at, e.seq
            SQL,
            [
                'site' => $batch->site->id->toRfc4122(),
                'pits' => array_values(array_unique(array_column($stays, 'pit'))),
                'from' => min(array_column($stays, 'from')),
                'to' => \in_array(null, array_column($stays, 'to'), true)
                    ? 'infinity'
                    : max(array_column($stays, 'to')),
            ],
            ['pits' => ArrayParameterType::STRING],
        );
    }

    /** @param list<array{pit: string, from: string, to: string|null}> $stays */
    private static function isWithin(array $stays, string $pit, string $at): bool
    {
        foreach ($stays as $stay) {
            if ($stay['pit'] === $pit && $at >= $stay['from'] && ($stay['to'] === null || $at < $stay['to'])) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param array{id: string, name: string, at: string, recorded_at: string, by: string, type: string,
     *     members: string} $row
     */
    private static function event(array $row): \stdClass
    {
        /** @var array{temp?: array<string, int|float>, words?: string} $members */
        $members = json_decode($row['members'], true, flags: \JSON_THROW_ON_ERROR);
        $temp = isset($members['temp']) ? (object) $members['temp'] : null;
        $said = match ($row['type']) {
            PitSign::Set->value => ['type' => 'pit_set', 'set' => $temp],
            PitSign::Reading->value => ['type' => 'pit_reading', 'temp' => $temp],
            default => ['type' => 'note', 'pit_sign' => $row['type'], 'text' => $members['words'] ?? null],
        };

        return (object) ($said + [
            'pit' => $row['name'],
            'id' => $row['id'],
            'at' => $row['at'],
            'by' => $row['by'],
            'recorded_at' => $row['recorded_at'],
            self::MARK => true,
        ]);
    }
}
