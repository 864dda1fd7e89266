<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\SensorChannel;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\SensorFaults;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\EntryProblem;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds\ProbeMoved;
use Verjuicer\Core\Event\Kinds\ProbePlaced;
use Verjuicer\Core\Event\Kinds\ProbePulled;
use Verjuicer\Core\Measure\Instant;

/** Says where a channel is from a moment on: in the register of sensors, and in the record of the batch it is in. */
final readonly class PlaceProbe
{
    public function __construct(
        private Assignments $assignments,
        private SensorFaults $faults,
        private RecordEntry $entry,
        private Batches $batches,
        private Pits $pits,
        private Ledger $ledger,
    ) {
    }

    /**
     * @param Uuid $id made by the client: the same again is kept once
     *
     * @throws EntryProblem if the batch has no such piece
     */
    public function place(Uuid $id, SensorChannel $channel, Account $by, Instant $at, PlacementTarget $where): void
    {
        $before = $this->assignments->currentOf([$channel->id])[$channel->id] ?? null;
        if ($before?->id === $id->toRfc4122()) {
            return;
        }
        $this->ledger->write($by->site, function () use ($id, $channel, $by, $at, $where, $before): void {
            $isSameBatch = $before !== null && $where->batchId !== null && $before->batchId === $where->batchId;
            if ($before !== null && $before->batchId !== null && !$before->isOver) {
                $left = $isSameBatch
                    ? new ProbeMoved($before->piece, $before->spot, $where->spot)
                    : new ProbePulled($before->piece, $before->spot);
                $this->write($before->batchId, Uuid::v5($id, 'left'), $by, $at, $left);
            }
            if ($where->batchId !== null && !$isSameBatch) {
                $placed = new ProbePlaced($where->piece, $where->spot);
                $this->write($where->batchId, Uuid::v5($id, 'placed'), $by, $at, $placed);
            }
            $this->assignments->put(
                $id,
                $channel->id,
                $by,
                $at,
                $where->target,
                $where->pitId === null ? null : $this->pits->find($by->site, $where->pitId),
                $where->place,
                $where->batchId === null ? null : $this->batches->get($where->batchId),
                $where->piece,
                $where->spot,
            );
            $this->faults->end($channel->id, $at);
        });
    }

    /** What batches are left by what was in them when they ended is not asked about: their record has ended, too. */
    private function write(string $batchId, Uuid $id, Account $by, Instant $at, Detail $detail): void
    {
        $this->entry->keep($this->batches->get($batchId), $by, true, new Draft($id, $detail, $at, isSpotNew: true));
    }
}
