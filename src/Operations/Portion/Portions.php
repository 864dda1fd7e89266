<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Portion;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Opening\Portioning;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\PieceSplitter;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Kinds\Close;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Weight;

/**
 * Divides batches by weight, or by pieces: each portion has a history of its own from then on, and shares the one
 * before.
 */
final readonly class Portions
{
    public function __construct(
        private Ledger $ledger,
        private Portioning $portioning,
        private PieceSplitter $partWays,
        private HeldPieces $held,
        private RecordEntry $entry,
    ) {
    }

    /**
     * @param Uuid $id made by the client: the same division again is done once
     * @param list<PortionRow> $rows
     * @param int $left grams that stay where they were; 0 ends the divided batch
     * @param int $lost grams that are neither, with the reason for it
     *
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse if an open batch has one of the tags
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function divide(
        Uuid $id,
        Batch $batch,
        Account $by,
        Instant $at,
        array $rows,
        int $left,
        int $lost,
        string $reason,
    ): void {
        $this->ledger->write($batch->site, function () use ($id, $batch, $by, $at, $rows, $left, $lost, $reason): void {
            if ($this->portioning->place($id) !== null) {
                return;
            }
            $total = array_sum(array_map(static fn (PortionRow $row): int => $row->grams, $rows)) + $left + $lost;
            $divided = new Note(
                step: NoteStep::Divided,
                totalKg: Weight::ofGrams($total),
                leftKg: Weight::ofGrams($left),
                lostKg: Weight::ofGrams($lost),
            );
            $this->entry->keep($batch, $by, true, new Draft($id, $divided, $at, $reason === '' ? null : $reason));
            foreach ($rows as $row) {
                $portion = $this->portioning->begin(
                    $row->id,
                    $by,
                    $batch,
                    $id,
                    $row->tag,
                    $at,
                    $row->grams,
                    $row->container,
                    $row->depthMm,
                );
                $weight = Weight::ofGrams($row->grams);
                $begun = new Note(
                    $row->container,
                    step: NoteStep::Portioned,
                    weightKg: $weight,
                    depthMm: $row->depthMm,
                );
                $this->entry->keep($portion, $by, true, new Draft(Uuid::v5($row->id, 'begun'), $begun, $at));
            }
            if ($left === 0) {
                $this->entry->keep(
                    $batch,
                    $by,
                    true,
                    new Draft(Uuid::v5($id, 'close'), new Close(NoteStep::Divided), $at),
                );
            }
        });
    }

    /**
     * Lets pieces go their own ways; the rest goes on, and where nothing is left the batch ends.
     *
     * @param Uuid $id made by the client: the same again is done once
     * @param array<int, non-empty-list<int>> $ways pieces by the tag they get
     *
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse if an open batch has one of the tags
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function part(Uuid $id, Batch $batch, Account $by, Instant $at, array $ways): void
    {
        $this->ledger->write($batch->site, function () use ($id, $batch, $by, $at, $ways): void {
            $left = array_diff($this->held->numbers($batch), ...array_values($ways));
            foreach ($ways as $tag => $pieces) {
                $this->partWays->apart(Uuid::v5($id, (string) $tag), $batch, $by, $at, $pieces, $tag);
            }
            if ($left === []) {
                $this->entry->keep(
                    $batch,
                    $by,
                    true,
                    new Draft(Uuid::v5($id, 'close'), new Close(NoteStep::Divided), $at),
                );
            }
        });
    }
}
