<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Pit;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Work\Entry\Draft;
use Verjuicer\App\Work\Entry\RecordEntry;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Pit\PitSign;

/** What was seen or done at a pit; a set point or a reading goes into the record of every batch in it, too. */
final readonly class PitEntries
{
    public function __construct(
        private Ledger $ledger,
        private SiteLog $log,
        private Lanes $lanes,
        private RecordEntry $entry,
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
        $batches = $temp === null ? [] : $this->batchesIn($pit);
        $this->ledger->write($pit->site, function () use ($id, $pit, $by, $at, $sign, $temp, $members, $batches): void {
            $isNew = $this->log->add($id, 'pit', $pit->id, $by, $at, $sign->value, $members);
            if (!$isNew || $temp === null) {
                return;
            }
            $detail = $sign === PitSign::Set ? new PitSet($temp, $pit->name) : new PitReading($temp, $pit->name);
            foreach ($batches as $batch) {
                $this->entry->keep($batch, $by, true, new Draft(Uuid::v5($batch->id, $id->toRfc4122()), $detail, $at));
            }
        });
    }
}
