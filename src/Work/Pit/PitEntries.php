<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Pit;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Pit\PitStays;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** What was seen or done at a pit; it stands in the record of every batch that was in it then. */
final readonly class PitEntries
{
    public function __construct(
        private Ledger $ledger,
        private SiteLog $log,
        private Lanes $lanes,
        private PitStays $stays,
        private EntityManagerInterface $entities,
    ) {
    }

    /** @return list<Batch> open batches on the heat in this pit, by tag */
    public function batchesIn(Pit $pit): array
    {
        $inside = array_filter($this->lanes->open($pit->site)->lanes, static fn (Lane $lane): bool => $lane->pit === $pit->name);
        $ids = array_map(static fn (Lane $lane): Uuid => Uuid::fromString($lane->batchId), array_values($inside));

        return $ids === [] ? [] : $this->entities->getRepository(Batch::class)->findBy(['id' => $ids], ['tag' => 'ASC']);
    }

    /**
     * @param Uuid $id made by the client: the same again is kept once
     *
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function write(Uuid $id, Pit $pit, Account $by, Instant $at, PitSign $sign, ?Temperature $temp, string $words): void
    {
        $members = [];
        if ($temp !== null) {
            $members['temp'] = [$temp->unit->member() => $temp->tenths / 10];
        }
        if ($words !== '') {
            $members['words'] = $words;
        }
        $this->ledger->write($pit->site, function () use ($id, $pit, $by, $at, $sign, $members): void {
            if ($this->log->add($id, 'pit', $pit->id, $by, $at, $sign->value, $members)) {
                array_map($this->ledger->changed(...), $this->stays->mayHaveBeenIn($pit, $at));
            }
        });
    }

    /**
     * Takes back what was written down at a pit; it stays in its log, struck.
     *
     * @param Uuid $id made by the client: the same again is kept once
     */
    public function takeBack(Uuid $id, Pit $pit, Account $by, SiteEvent $wrong, string $reason): void
    {
        $this->ledger->write($pit->site, function () use ($id, $pit, $by, $wrong, $reason): void {
            $members = ['replaces' => $wrong->id, 'reason' => $reason];
            if ($this->log->add($id, 'pit', $pit->id, $by, $wrong->at, 'void', $members)) {
                array_map($this->ledger->changed(...), $this->stays->mayHaveBeenIn($pit, $wrong->at));
            }
        });
    }
}
