<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Plan;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;

/** The plans of a site, and their dishes. */
final readonly class Plans
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Plan> the latest meal first */
    public function of(Site $site): array
    {
        return $this->entities
            ->getRepository(Plan::class)
            ->findBy(['site' => $site, 'isRetired' => false], ['beginsAt' => 'DESC'], 60);
    }

    public function find(Site $site, string $id): ?Plan
    {
        $plan = Uuid::isValid($id) ? $this->entities->find(Plan::class, Uuid::fromString($id)) : null;

        return $plan !== null && $plan->site->id->equals($site->id) ? $plan : null;
    }

    /** @return list<PlannedDish> as they were added */
    public function dishes(Plan $plan): array
    {
        return $this->entities
            ->getRepository(PlannedDish::class)
            ->findBy(['plan' => $plan, 'isRemoved' => false], ['id' => 'ASC']);
    }

    public function dish(Plan $plan, string $id): ?PlannedDish
    {
        foreach ($this->dishes($plan) as $dish) {
            if ($dish->id->toRfc4122() === $id) {
                return $dish;
            }
        }

        return null;
    }

    /** The dish a batch was planned as. */
    public function ofBatch(Batch $batch): ?PlannedDish
    {
        return $this->entities->getRepository(PlannedDish::class)->findOneBy(['batch' => $batch->id]);
    }

    /** The same again is kept once. */
    public function add(Plan|PlannedDish $one): void
    {
        if ($this->entities->find($one::class, $one->id) === null) {
            $this->entities->persist($one);
        }
        $this->entities->flush();
    }

    public function keep(): void
    {
        $this->entities->flush();
    }
}
