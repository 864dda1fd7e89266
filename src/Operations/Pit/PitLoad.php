<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Pit;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;

/** What is in a pit now. */
final readonly class PitLoad
{
    public function __construct(private Lanes $lanes, private EntityManagerInterface $entities)
    {
    }

    /** @return list<Batch> open batches on the heat in this pit, by tag */
    public function batchesIn(Pit $pit): array
    {
        $inside = array_filter(
            $this->lanes->open($pit->site)->lanes,
            static fn (Lane $lane): bool => $lane->pit === $pit->name,
        );
        $ids = array_map(static fn (Lane $lane): Uuid => Uuid::fromString($lane->batchId), array_values($inside));

        return $ids === []
            ? []
            : $this->entities->getRepository(Batch::class)->findBy(['id' => $ids], ['tag' => 'ASC']);
    }
}
