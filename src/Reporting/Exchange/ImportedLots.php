<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/**
 * Lots and suppliers of imported records, as far as the records name them: a lot holds the amounts that batches of the
 * file took from it, so that a recall finds them. Other uses of the lot are unknown.
 */
final readonly class ImportedLots
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Products $products,
        private Lots $lots,
        private Now $now,
    ) {
    }

    /**
     * Adds the amount a record took from its lot, if it is not imported yet.
     *
     * @param array<string, ImportedLot> $arrivals of the records before it
     *
     * @return array<string, ImportedLot>
     */
    public function counted(array $arrivals, Record $record, Account $by): array
    {
        [$event, $received] = self::received($record);
        if ($event === null || $received === null) {
            return $arrivals;
        }
        $of = $received->supplier."\n".$received->lot;
        if (!isset($arrivals[$of]) && $this->here($by, $received) !== null) {
            return $arrivals;
        }
        $arrivals[$of] ??= new ImportedLot($received, $event->at, $record->product);
        $arrivals[$of]->pieces += $record->product->held();
        $arrivals[$of]->grams += self::grams($record);

        return $arrivals;
    }

    /**
     * Within a write. Begins the lots that are not here yet.
     *
     * @param array<string, ImportedLot> $arrivals
     */
    public function begin(array $arrivals, Account $by): void
    {
        foreach ($arrivals as $arrival) {
            if ($this->here($by, $arrival->received) === null) {
                $this->add($arrival, $by);
            }
        }
    }

    /** Within a write. Says from which lot a batch was taken, where that has as much left. */
    public function link(Batch $batch, Record $record, Account $by): void
    {
        [, $received] = self::received($record);
        $lot = $received === null ? null : $this->here($by, $received);
        $left = $lot === null ? null : $this->lots->find($by->site, $lot->id->toRfc4122());
        if ($lot === null || $left === null || $left->piecesLeft < $record->product->held()) {
            return;
        }
        $this->connection->insert('batch_lot', [
            'batch_id' => $batch->id->toRfc4122(),
            'lot_id' => $lot->id->toRfc4122(),
            'pieces' => $record->product->held(),
            'grams' => max(1, min($left->gramsLeft, self::grams($record))),
        ]);
    }

    private function add(ImportedLot $arrival, Account $by): void
    {
        $received = $arrival->received;
        \assert($received->lot !== null, 'only those are counted');
        $site = $by->site;
        $name = $received->supplier ?? '';
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['site' => $site, 'name' => $name])
            ?? new Supplier($site, $name);
        $made = $arrival->product;
        $product = $this->products->named($site, $made->name ?? '')
            ?? new Product($site, $made->name ?? '', $made->animal, $made->form, $made->integrity, null);
        $this->entities->persist($supplier);
        $this->entities->persist($product);
        $this->entities->persist(new Lot(
            Uuid::v7(),
            $site,
            Uuid::v5($site->id, $name.$arrival->at->rfc3339()),
            $supplier,
            $product,
            $received->lot,
            $arrival->pieces,
            max(1, $arrival->grams),
            null,
            $received->frozen,
            $received->temp,
            $received->thermometer,
            null,
            true,
            null,
            self::dateTime($arrival->at),
            self::dateTime($this->now->instant()),
            $by,
        ));
        $this->entities->flush();
    }

    private function here(Account $by, Received $received): ?Lot
    {
        $lots = $this->entities->getRepository(Lot::class)->findBy(['site' => $by->site, 'number' => $received->lot]);
        foreach ($lots as $lot) {
            if ($lot->supplier->name === $received->supplier) {
                return $lot;
            }
        }

        return null;
    }

    /** @return array{Event, Received}|array{null, null} the arrival that counts, of a batch that is no portion */
    private static function received(Record $record): array
    {
        $replaced = array_column($record->events, 'replaces', 'replaces');
        foreach ($record->portion === null ? $record->events : [] as $event) {
            $detail = $event->detail;
            $isNamed = $detail instanceof Received && $detail->lot !== null && $detail->supplier !== null;
            if ($isNamed && !isset($replaced[$event->id])) {
                return [$event, $detail];
            }
        }

        return [null, null];
    }

    private static function grams(Record $record): int
    {
        return ($record->product->rawWeight?->grams() ?? 0) * $record->product->held();
    }

    private static function dateTime(Instant $instant): \DateTimeImmutable
    {
        return new \DateTimeImmutable($instant->rfc3339());
    }
}
