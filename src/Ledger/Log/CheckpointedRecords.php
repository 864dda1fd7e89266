<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\Service\ResetInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Assess\Checkpoint\CheckpointBuilder;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * Records that are judged repeatedly: a checkpoint is stored with the batch, and only later events are read. It is
 * valid until an entry or correction dated before the checkpoint arrives, or until the code, rule set or thermometers
 * change; then the whole record is read.
 */
final class CheckpointedRecords implements ResetInterface
{
    /**
     * The checkpoint moves by at least this many events, and lags by as many, so that late entries are replayed from
     * it.
     */
    private const AT_ONCE = 96;
    private const LEFT_EVENTS = 64;
    private const LEFT_SECONDS = 1200;
    private const MOST_KNOWN = 8;

    /** @var array<string, array{int, JudgedRecord}> the last that were read, by batch, with the head of it then */
    private array $known = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly StoredRecords $records,
        private readonly RuleSetLibrary $ruleSets,
        #[Autowire('%verjuicer.judged_by%')] private readonly string $judgedBy,
    ) {
    }

    public function of(Batch $batch): JudgedRecord
    {
        // Every entry of a batch moves its head, in the same transaction.
        $head = $this->connection->fetchOne(
            'SELECT head FROM projection_state WHERE batch_id = ?',
            [$batch->id->toRfc4122()],
        );
        if (!\is_int($head)) {
            return $this->whole($batch);
        }
        $id = $batch->id->toRfc4122();
        [$at, $known] = $this->known[$id] ?? [0, null];
        if ($known === null || ($at !== $head && $at + 1 !== $head)) {
            $known = $this->abridged($batch) ?? $this->whole($batch);
        } elseif ($at !== $head) {
            $known = $this->goneOn($batch, $known) ?? $this->abridged($batch) ?? $this->whole($batch);
        }
        unset($this->known[$id]);
        $this->known = [...\array_slice($this->known, 1 - self::MOST_KNOWN), $id => [$head, $known]];

        return $known;
    }

    /** Between two requests or messages nothing is known: others may have written since. */
    public function reset(): void
    {
        $this->known = [];
    }

    /** The record as needed at a moment: whole if that lies before the checkpoint. */
    public function at(Batch $batch, Instant $moment): Record
    {
        $known = $this->of($batch);
        $isInIt = $moment->epoch >= ($known->abridgement->until ?? \PHP_INT_MIN);

        return $isInIt ? $known->record : $this->records->of($batch);
    }

    /** Moves the checkpoint if many events have come since. */
    public function goOn(Batch $batch, JudgedRecord $known): void
    {
        if ($known->since() <= self::AT_ONCE + self::LEFT_EVENTS) {
            return;
        }
        $own = $known->own();
        $times = array_map(static fn (Event $event): int => $event->at->epoch, $own->events);
        sort($times);
        $last = \count($times) - 1;
        // Counted from there: a few events may be dated far ahead of the rest.
        $until = Instant::ofEpoch($times[$last - self::LEFT_EVENTS] - self::LEFT_SECONDS);
        $past = $known->abridgement;
        $more = array_filter(
            $times,
            static fn (int $at): bool => $at <= $until->epoch && ($past === null || $at > $past->until),
        );
        if (\count($more) < self::AT_ONCE) {
            return;
        }
        $this->known = array_diff_key($this->known, [$batch->id->toRfc4122() => true]);
        $next = CheckpointBuilder::of($own, $this->ruleSets->get($own->rules), $until, $past);
        $id = $batch->id->toRfc4122();
        if ($next === null) {
            $this->connection->executeStatement('DELETE FROM abridged_record WHERE batch_id = ?', [$id]);

            return;
        }
        $kept = $next->events($own);
        $placesAfter = $events = [];
        foreach ($kept as $event) {
            if ($event->at->epoch > $until->epoch) {
                $placesAfter[] = $known->rows->places[$event->id];
            } else {
                $events[] = Writer::event($event);
            }
        }
        $place = max([...array_values($known->rows->places), $past === null ? 0 : $this->place($id)]);
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO abridged_record (batch_id, site_id, basis, place, places_after, abridgement, kept)
            VALUES (:batch, :site, :basis, :place, :after, :abridgement, :kept)
            ON CONFLICT (batch_id) DO UPDATE SET basis = excluded.basis, place = excluded.place,
                places_after = excluded.places_after, abridgement = excluded.abridgement, kept = excluded.kept
            SQL,
            [
                'batch' => $id,
                'site' => $batch->site->id->toRfc4122(),
                'basis' => $this->basis($own),
                'place' => $place,
                'after' => '{'.implode(',', $placesAfter).'}',
                'abridgement' => json_encode(
                    $next->toData()
                        + ['first' => $known->rows->first, 'thermometers' => $known->rows->thermometers],
                    \JSON_THROW_ON_ERROR,
                ),
                'kept' => json_encode($events, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
            ],
        );
    }

    /** With the readings of one more entry, and its pits' log; null if there are other new events, too. */
    private function goneOn(Batch $batch, JudgedRecord $known): ?JudgedRecord
    {
        $place = max([0, ...array_values($known->rows->places)]);
        $more = $this->records->rowsSince($batch, $place, '{}');
        // Which checks of its thermometers a record holds turns on its first reading, too.
        $from = $known->abridgement === null
            ? $known->rows->first
            : Instant::ofEpoch($known->abridgement->until)->rfc3339();
        foreach ($more->events as $event) {
            if ($event->type !== 'reading' || isset($event->replaces) || $event->at < $from) {
                return null;
            }
        }
        if ($more->events === [] || array_diff($more->thermometers, $known->rows->thermometers) !== []) {
            return null;
        }
        if ($this->isCheckedAfter($batch, $known->rows)) {
            return null;
        }

        $rows = $known->rows->and($more);

        return $known->with($rows, $this->records->eventsOf($more), $this->records->eventsOfPits($batch, $rows));
    }

    /** Whether a thermometer of it was checked since: of several checks a record holds the first alone. */
    private function isCheckedAfter(Batch $batch, StoredRows $rows): bool
    {
        return $rows->thermometers !== []
            && $this->connection->fetchOne(
                'SELECT 1 FROM thermometer_check c JOIN thermometer t ON t.id = c.thermometer_id '
                .'WHERE t.site_id = ? AND t.label IN (?) AND c.at > ? LIMIT 1',
                [$batch->site->id->toRfc4122(), $rows->thermometers, $rows->last],
                [1 => ArrayParameterType::STRING],
            ) !== false;
    }

    private function whole(Batch $batch): JudgedRecord
    {
        $rows = $this->records->rows($batch);

        return new JudgedRecord($this->records->read($batch, $rows), $rows, null, 0);
    }

    private function abridged(Batch $batch): ?JudgedRecord
    {
        /** @var array{basis: string, place: int, after: string, abridgement: string, kept: string}|false $row */
        $row = $this->connection->fetchAssociative(
            'SELECT basis, place, places_after::text AS after, abridgement, kept FROM abridged_record '
            .'WHERE batch_id = ?',
            [$batch->id->toRfc4122()],
        );
        if ($row === false) {
            return null;
        }
        /** @var array{first: string, thermometers: list<string>} $data */
        $data = json_decode($row['abridgement'], true, flags: \JSON_THROW_ON_ERROR);
        $past = Checkpoint::ofData($data);
        $until = Instant::ofEpoch($past->until);
        $since = $this->records->rowsSince($batch, $row['place'], $row['after']);
        if (!self::goesOn($since, $row['place'], $until)) {
            return null;
        }
        /** @var list<\stdClass> $kept */
        $kept = json_decode($row['kept'], flags: \JSON_THROW_ON_ERROR);
        $rows = $since->after($kept, $data['thermometers'], $data['first'], $until->rfc3339());
        $record = $this->records->read($batch, $rows);

        return $this->basis($record) === $row['basis']
            ? new JudgedRecord($record, $rows, $past, \count($kept))
            : null;
    }

    /** Whether no later entry changes the time before the checkpoint. */
    private static function goesOn(StoredRows $since, int $place, Instant $until): bool
    {
        $moment = $until->rfc3339();
        foreach ($since->events as $event) {
            [$id, $replaces] = [$event->id ?? null, $event->replaces ?? null];
            $isLate = \is_string($id) && $since->places[$id] > $place && $event->at < $moment;
            if ($isLate || (\is_string($replaces) && !isset($since->places[$replaces]))) {
                return false;
            }
        }

        return true;
    }

    /** All inputs of judging other than events. */
    private function basis(Record $record): string
    {
        $head = Writer::toData(
            new Record($record->site, $record->rules, null, $record->thermometers, $record->code, $record->product, []),
        );

        return hash('sha256', $this->judgedBy.json_encode($head, \JSON_THROW_ON_ERROR));
    }

    private function place(string $batchId): int
    {
        $place = $this->connection->fetchOne('SELECT place FROM abridged_record WHERE batch_id = ?', [$batchId]);

        return \is_int($place) ? $place : 0;
    }
}
