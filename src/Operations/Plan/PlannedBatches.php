<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;

/**
 * Makes a planned batch a real one: from its lot, with what it is wanted for. Nothing is written down that has not
 * happened: prep begins when somebody says so. From then on its record is its own.
 */
final readonly class PlannedBatches
{
    public function __construct(
        private NewBatches $newBatches,
        private Batches $batches,
        private Ledger $ledger,
        private RecordEntry $entry,
        private Plans $plans,
        private Now $now,
    ) {
    }

    /**
     * The same dish again is the same batch.
     *
     * @throws PlanProblem if no tag is free
     */
    public function make(DishSheet $sheet, Account $by): Batch
    {
        $dish = $sheet->dish;
        if ($dish->batch !== null) {
            return $dish->batch;
        }
        $facts = $sheet->facts;
        $lot = self::lotFor($sheet);
        $plan = new BatchPlan(
            $dish->product,
            $this->batches->freeTags($by->site, 1, 1)[0] ?? throw PlanProblem::noTag(),
            $sheet->pieces,
            $lot?->lot->gramsOfOne() ?? $facts->pieceGrams,
        );
        $at = $this->now->instant();
        $first = [
            new Note(step: NoteStep::Target, temp: $facts->target),
            new Note(readyBy: self::wantedOff($sheet)),
        ];
        $batch = $this->ledger->write($by->site, function () use ($dish, $by, $plan, $lot, $at, $first): Batch {
            $batch = $this->newBatches->begin(Uuid::v5($dish->id, 'batch'), $by, $plan, $lot?->lot, $at);
            $drafts = [];
            foreach ($first as $name => $detail) {
                $drafts[] = new Draft(Uuid::v5($batch->id, 'planned '.$name), $detail, $at);
            }
            $this->entry->keep($batch, $by, true, ...$drafts);

            return $batch;
        });
        $dish->becomes($batch, PlannedMoments::ofSchedule($sheet->schedule, $sheet->need->served));
        $this->plans->keep();

        return $batch;
    }

    /** @param Uuid $id made by the client, so that a retry is kept once */
    public function wantLater(DishSheet $sheet, Instant $serve, Account $by, Uuid $id): void
    {
        if ($sheet->dish->batch !== null) {
            $note = new Note(readyBy: Instant::ofEpoch($serve->epoch - $sheet->schedule->after));
            $this->entry->keep($sheet->dish->batch, $by, true, new Draft($id, $note, $this->now->instant()));
        }
    }

    /** The first to spoil of those that have enough pieces. */
    private static function lotFor(DishSheet $sheet): ?LotOnHand
    {
        foreach ($sheet->onHand->lots ?? [] as $lot) {
            if ($lot->piecesLeft >= $sheet->pieces) {
                return $lot;
            }
        }

        return null;
    }

    /** When it has to be off the heat, to rest, be cooled and reheated, be sliced and still be there. */
    private static function wantedOff(DishSheet $sheet): Instant
    {
        return Instant::ofEpoch($sheet->schedule->dish->serve->epoch - $sheet->schedule->after);
    }
}
