<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/** An arrival that was written down wrong is put right for the lot and for every batch that took from it. */
final readonly class ReceivingCorrection
{
    public function __construct(
        private Lots $lots,
        private SiteLog $log,
        private StoredRecords $records,
        private RecordEntry $entry,
        private EntityManagerInterface $entities,
    ) {
    }

    /** After a correction of a batch: the rest of its lot follows. Within a write. */
    public function follow(Batch $batch, Event $wrong, Draft $right, Account $by): void
    {
        $detail = $right->detail;
        if (!$wrong->is(Received::class) || !($detail instanceof Received)) {
            return;
        }
        foreach ($this->lots->ofBatch($batch->root()) as $lot) {
            if ($lot->number === $detail->lot) {
                $this->putRight($right->id, $lot, $detail, $right->at, $right->reason ?? '', $by, $batch);
            }
        }
    }

    /**
     * @param Uuid $id made by the client: the same again is kept once
     * @param Batch|null $done whose record was put right already
     */
    public function putRight(
        Uuid $id,
        Lot $lot,
        Received $arrived,
        Instant $at,
        string $reason,
        Account $by,
        ?Batch $done = null,
    ): void {
        $members = ['frozen' => $arrived->frozen, 'arrived_at' => $at->rfc3339(), 'reason' => $reason];
        if ($arrived->temp !== null) {
            $members['temp'] = [$arrived->temp->unit->member() => $arrived->temp->tenths / 10];
        }
        if ($arrived->thermometer !== null) {
            $members['thermometer'] = $arrived->thermometer;
        }
        $this->log->add(
            Uuid::v5($id, $lot->id->toRfc4122()),
            'lot',
            $lot->id,
            $by,
            $at,
            LotOnHand::CORRECTED,
            $members,
        );
        foreach ($this->lots->batchesOf($lot) as $row) {
            $batch = $this->entities->find(Batch::class, Uuid::fromString($row['id']));
            $wrong = $batch === null || $batch === $done ? null : $this->arrival($batch, $lot);
            if ($batch !== null && $wrong !== null) {
                $this->entry->keep(
                    $batch,
                    $by,
                    true,
                    new Draft(Uuid::v5($id, $row['id']), $arrived, $at, $reason, $wrong->id),
                );
            }
        }
    }

    private function arrival(Batch $batch, Lot $lot): ?Event
    {
        foreach (Timeline::of($this->records->of($batch), Instant::ofEpoch(\PHP_INT_MAX))->events as $event) {
            if ($event->detail instanceof Received && $event->detail->lot === $lot->number) {
                return $event;
            }
        }

        return null;
    }
}
