<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** Keeps deliveries: their lots, and where each went. */
final readonly class Deliveries
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Ledger $ledger,
        private SiteLog $log,
        private Now $now,
    ) {
    }

    /** @return list<Supplier> by name */
    public function suppliers(Site $site): array
    {
        return $this->entities->getRepository(Supplier::class)->findBy(['site' => $site], ['name' => 'ASC']);
    }

    /**
     * @param Uuid $id made by the client, as are those of the lots: the same again are kept once
     * @param list<ReceivedLot> $lots
     */
    public function keep(Uuid $id, Account $by, Instant $at, string $supplier, array $lots): void
    {
        $this->ledger->write($by->site, function () use ($id, $by, $at, $supplier, $lots): void {
            $from = $this->supplier($by->site, $supplier);
            foreach ($lots as $lot) {
                if ($this->entities->find(Lot::class, $lot->id) === null) {
                    $this->add($id, $by, $at, $from, $lot);
                }
            }
        });
    }

    private function add(Uuid $delivery, Account $by, Instant $at, Supplier $supplier, ReceivedLot $lot): void
    {
        $this->entities->persist(
            new Lot(
                $lot->id,
                $by->site,
                $delivery,
                $supplier,
                $lot->product,
                $lot->number,
                $lot->pieces,
                $lot->grams,
                $lot->cents,
                $lot->isFrozen,
                $lot->temp,
                $lot->thermometer,
                $lot->useBy === null ? null : new \DateTimeImmutable($lot->useBy),
                $lot->isAccepted,
                $lot->reason,
                new \DateTimeImmutable($at->rfc3339()),
                new \DateTimeImmutable($this->now->instant()->rfc3339()),
                $by,
            ),
        );
        $this->entities->flush();
        if ($lot->isAccepted) {
            $type = $lot->isFrozen ? 'freeze' : 'cold_hold';
            $members = $lot->place === '' ? [] : ['place' => $lot->place];
            $this->log->add(Uuid::v5($lot->id, 'place'), 'lot', $lot->id, $by, $at, $type, $members);
        }
    }

    private function supplier(Site $site, string $name): Supplier
    {
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['site' => $site, 'name' => $name]);
        if ($supplier === null) {
            $supplier = new Supplier($site, $name);
            $this->entities->persist($supplier);
        }

        return $supplier;
    }
}
