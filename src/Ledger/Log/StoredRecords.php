<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Site\Settings\SiteHistory;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Procedure;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;

/** Builds the record of a batch from its rows, through the same reader as a file. */
final readonly class StoredRecords
{
    public function __construct(
        private Connection $connection,
        private HeldPieces $held,
        private PitShare $pits,
        private Reader $reader,
        private SiteHistory $history,
        private Procedures $procedures,
    ) {
    }

    public function of(Batch $batch): Record
    {
        return $this->read($batch, $this->rows($batch));
    }

    /** @return StoredRows all that is written down of a batch */
    public function rows(Batch $batch): StoredRows
    {
        return StoredRows::of($this->fetched($batch, 'true', []));
    }

    /**
     * @param int $known place in the log; later entries are loaded
     * @param string $also places before it that are looked for, too: "{7,9}"
     */
    public function rowsSince(Batch $batch, int $known, string $also): StoredRows
    {
        $condition = '(e.seq > :known OR e.seq = ANY(:also::bigint[]))';

        return StoredRows::of($this->fetched($batch, $condition, ['known' => $known, 'also' => $also]));
    }

    /** @return list<Event> of rows alone, in their order */
    public function eventsOf(StoredRows $rows): array
    {
        return $this->reader->readEvents($rows->events);
    }

    /** @return list<Event> events from the log of its pits */
    public function eventsOfPits(Batch $batch, StoredRows $rows): array
    {
        $all = $this->pits->with($batch, $rows->events);
        /** @var list<\stdClass> $ofPits */
        $ofPits = \array_slice($all, \count($rows->events));

        return $this->reader->readEvents($ofPits);
    }

    /** The record of rows with the events of its pits. */
    public function read(Batch $batch, StoredRows $rows): Record
    {
        // Nothing of a record refers to itself: looking for that took a third of the time of a long one.
        $collects = gc_enabled();
        gc_disable();
        try {
            return $this->reader->readData($this->data($batch, $rows));
        } finally {
            if ($collects) {
                gc_enable();
            }
        }
    }

    private function data(Batch $batch, StoredRows $rows): \stdClass
    {
        $events = $this->pits->with($batch, $rows->events);
        $site = $this->history->at($batch->site, Instant::ofEpoch($batch->begunAt->getTimestamp()));

        return (object) [
            'format' => Reader::FORMAT,
            'site' => (object) [
                'name' => $site->name,
                'timezone' => $site->timezone,
                'unit' => $site->unit->value,
                'elevation_m' => $site->elevationM,
                'house_limits' => $site->houseLimits === [] ? null : (object) $site->houseLimits,
                'procedures' => array_map(self::procedure(...), $this->procedures->forRecords($batch->site)),
            ],
            'rules' => $batch->ruleSet,
            'thermometers' => $this->thermometers($batch, $rows),
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
                    'piece_numbers' => $this->held->of($batch),
                    'stuffed' => $batch->isStuffed || self::wasStuffed($events),
                    'wild' => $batch->isWild,
                    'advisory' => $batch->hasAdvisory,
                    'treatments' => $batch->treatments ?? [],
                ],
                'events' => $events,
            ],
        ];
    }

    private static function procedure(Procedure $one): \stdClass
    {
        return (object) [
            'kind' => $one->kind->value,
            'number' => $one->number,
            'version' => $one->version,
            'from' => $one->from->rfc3339(),
            'to' => $one->to?->rfc3339(),
        ];
    }

    /**
     * @param array<string, string|int> $parameters
     *
     * @return array<mixed> a row each, in the order in which they were written down
     */
    private function fetched(Batch $batch, string $condition, array $parameters): array
    {
        $shared = SharedEvents::of($batch);

        // As arrays, and put together here: merging JSON in the database took twice as long for a long record.
        return $this->list(
            <<<SQL
            SELECT json_agg(json_build_array(
                members, id, to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), initials, type, replaces,
                reason, to_char(recorded_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), seq
            ) ORDER BY seq)
            FROM event e WHERE ($shared->condition) AND $condition
            SQL,
            $shared->parameters + $parameters,
        );
    }

    /**
     * Of years of checks, those that say anything of these readings: from the last before the first to the first after
     * the last.
     *
     * @return array<mixed>
     */
    private function thermometers(Batch $batch, StoredRows $rows): array
    {
        if ($rows->thermometers === []) {
            return [];
        }
        $labels = $parameters = [];
        foreach ($rows->thermometers as $place => $label) {
            $labels[] = ":label$place";
            $parameters["label$place"] = $label;
        }
        $in = implode(', ', $labels);

        return $this->list(
            <<<SQL
            SELECT jsonb_agg(jsonb_build_object('id', t.label, 'checks', (
                SELECT coalesce(jsonb_agg(jsonb_build_object(
                    'at', to_char(c.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
                    'method', c.method, 'expected', c.expected, 'read', c.read
                ) ORDER BY c.seq), '[]')
                FROM thermometer_check c WHERE c.thermometer_id = t.id
                  AND c.at >= coalesce((
                      SELECT max(p.at) FROM thermometer_check p WHERE p.thermometer_id = t.id AND p.at <= :first
                  ), '-infinity')
                  AND c.at <= coalesce((
                      SELECT min(n.at) FROM thermometer_check n WHERE n.thermometer_id = t.id AND n.at > :last
                  ), 'infinity')
            )) ORDER BY t.label)
            FROM thermometer t WHERE t.site_id = :site AND t.label IN ($in)
            SQL,
            $parameters + [
                'site' => $batch->site->id->toRfc4122(),
                'first' => $rows->first,
                'last' => $rows->last,
            ],
        );
    }

    /**
     * Whether anybody wrote down, and did not take back, that it was stuffed after it was begun.
     *
     * @param array<mixed> $events
     */
    private static function wasStuffed(array $events): bool
    {
        $stuffings = $replaced = [];
        foreach ($events as $event) {
            if (!$event instanceof \stdClass) {
                continue;
            }
            if (\is_string($event->replaces ?? null)) {
                $replaced[$event->replaces] = true;
            }
            if (
                ($event->type ?? null) === 'tenderize'
                && ($event->stuffed ?? null) === true
                && \is_string($event->id ?? null)
            ) {
                $stuffings[$event->id] = true;
            }
        }

        return array_diff_key($stuffings, $replaced) !== [];
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
}
