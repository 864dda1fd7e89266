<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Portion;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\Portioned;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Work\Entry\Draft;
use Verjuicer\App\Work\Entry\RecordEntry;
use Verjuicer\Core\Event\Kinds\Close;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Weight;

/** Divides batches: each portion has a history of its own from then on, and shares the one before. */
final readonly class Portions
{
    private const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

    public function __construct(
        private Connection $connection,
        private Ledger $ledger,
        private NewBatches $newBatches,
        private Batches $batches,
        private Products $products,
        private RecordEntry $entry,
    ) {
    }

    /**
     * @param Uuid             $id   made by the client: the same division again is done once
     * @param list<PortionRow> $rows
     * @param int              $left grams that stay where they were; 0 ends the divided batch
     * @param int              $lost grams that are neither, with the reason for it
     *
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse    if an open batch has one of the tags
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function divide(Uuid $id, Batch $batch, Account $by, Instant $at, array $rows, int $left, int $lost, string $reason): void
    {
        $this->ledger->write($batch->site, function () use ($id, $batch, $by, $at, $rows, $left, $lost, $reason): void {
            if ($this->place($id) !== null) {
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
            $sharesUpTo = $this->place($id);
            \assert($sharesUpTo !== null, 'it was kept just now');
            $taken = \count($this->batches->portionsOf($batch));
            foreach ($rows as $index => $row) {
                $letter = self::letter($taken + $index);
                $portioned = new Portioned($batch, $sharesUpTo, $letter, $row->grams, $row->container, $row->depthMm);
                $portion = $this->newBatches->begin($row->id, $by, $this->plan($batch, $row, $portioned), null, $at);
                $weight = Weight::ofGrams($row->grams);
                $begun = new Note($row->container, step: NoteStep::Portioned, weightKg: $weight, depthMm: $row->depthMm);
                $this->entry->keep($portion, $by, true, new Draft(Uuid::v5($row->id, 'begun'), $begun, $at));
            }
            if ($left === 0) {
                $this->entry->keep($batch, $by, true, new Draft(Uuid::v5($id, 'close'), new Close(NoteStep::Divided), $at));
            }
        });
    }

    /**
     * Where in the log of events an entry stands.
     *
     * @phpstan-impure
     */
    private function place(Uuid $event): ?int
    {
        $place = $this->connection->fetchOne('SELECT seq FROM event WHERE id = ?', [$event->toRfc4122()]);

        return \is_int($place) ? $place : null;
    }

    private static function letter(int $index): string
    {
        $count = \strlen(self::LETTERS);

        return ($index >= $count ? self::letter(intdiv($index, $count) - 1) : '').self::LETTERS[$index % $count];
    }

    /** The product as the site's list has it; a batch of one that was renamed since keeps its own name. */
    private function plan(Batch $batch, PortionRow $row, Portioned $portioned): BatchPlan
    {
        $product = $this->products->named($batch->site, $batch->productName)
            ?? new Product($batch->site, $batch->productName, $batch->animal, $batch->form, $batch->integrity, null);

        return new BatchPlan(
            $product,
            $row->tag,
            $batch->pieces,
            $batch->rawGrams,
            $batch->isStuffed,
            $batch->isWild,
            $batch->hasAdvisory,
            $portioned,
        );
    }
}
