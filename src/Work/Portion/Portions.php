<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Portion;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\Portioned;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** Divides batches: each portion has a history of its own from then on, and shares the one before. */
final readonly class Portions
{
    private const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

    public function __construct(private Connection $connection, private EntityManagerInterface $entities, private NewBatches $batches, private Products $products, private EventLog $log)
    {
    }

    /** @return list<Batch> by their letters */
    public function of(Batch $batch): array
    {
        return $this->entities->getRepository(Batch::class)->findBy(['parent' => $batch], ['code' => 'ASC']);
    }

    /**
     * @param list<PortionRow> $rows
     * @param int              $left grams that stay where they were; 0 ends the divided batch
     * @param int              $lost grams that are neither, with the reason for it
     *
     * @return bool whether it was done now; the same division again is done once
     *
     * @throws \Verjuicer\App\Ledger\Opening\TagInUse if an open batch has one of the tags
     */
    public function divide(Uuid $id, Batch $batch, Account $by, Instant $now, array $rows, int $left, int $lost, string $reason): bool
    {
        return $this->connection->transactional(function () use ($id, $batch, $by, $now, $rows, $left, $lost, $reason): bool {
            $members = ['step' => 'divided', 'total_kg' => (array_sum(array_map(static fn (PortionRow $row): int => $row->grams, $rows)) + $left + $lost) / 1000, 'left_kg' => $left / 1000, 'lost_kg' => $lost / 1000];
            $divided = new Event($id->toRfc4122(), $now, $by->initials, EventType::Note, new Detail\Note(null), null, $reason === '' ? null : $reason, $members);
            if (!$this->log->append($batch, $by, $now, $divided)) {
                return false;
            }
            $sharesUpTo = $this->connection->fetchOne('SELECT seq FROM event WHERE id = ?', [$id->toRfc4122()]);
            \assert(\is_int($sharesUpTo), 'it was appended just now');
            $taken = \count($this->of($batch));
            foreach ($rows as $index => $row) {
                $portioned = new Portioned($batch, $sharesUpTo, self::letter($taken + $index), $row->grams, $row->container, $row->depthMm);
                $plan = new BatchPlan($this->product($batch), $row->tag, $batch->pieces, $batch->rawGrams, $batch->isStuffed, $batch->isWild, $batch->hasAdvisory, portioned: $portioned);
                $begun = new Event(Uuid::v5($row->id, 'begun')->toRfc4122(), $now, $by->initials, EventType::Note, new Detail\Note($row->container), unknown: array_filter(
                    ['step' => 'portioned', 'weight_kg' => $row->grams / 1000, 'depth_mm' => $row->depthMm],
                    static fn (mixed $member): bool => $member !== null,
                ));
                $this->batches->begin($row->id, $by, $now, $plan, $begun);
            }
            if ($left === 0) {
                $this->log->append($batch, $by, $now, new Event(Uuid::v5($id, 'close')->toRfc4122(), $now, $by->initials, EventType::Close, Detail\Bare::of(), unknown: ['step' => 'divided']));
            }

            return true;
        });
    }

    private static function letter(int $index): string
    {
        $count = \strlen(self::LETTERS);

        return ($index >= $count ? self::letter(intdiv($index, $count) - 1) : '').self::LETTERS[$index % $count];
    }

    /** The product as the site's list has it; a batch of one that was renamed since keeps its own name. */
    private function product(Batch $batch): Product
    {
        return $this->products->ofBatch($batch) ?? new Product($batch->site, $batch->productName, $batch->animal, $batch->form, $batch->integrity, null);
    }
}
