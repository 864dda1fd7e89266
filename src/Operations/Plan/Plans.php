<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Query\Parameter;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Span;

/** The plans of a site, and their dishes. */
final readonly class Plans
{
    private const AROUND_HOURS = 72;
    private const MOST_AROUND = 8;

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

    /** @return list<Plan> other plans of the same days, which want the same pits and lots */
    public function around(Plan $plan): array
    {
        $reach = Span::ofHours(self::AROUND_HOURS)->seconds;

        /** @var list<Plan> */
        return $this->entities
            ->createQuery(
                'SELECT p FROM '.Plan::class.' p WHERE p.site = :site AND p.isRetired = false AND p != :plan '
                .'AND p.beginsAt BETWEEN :from AND :to ORDER BY p.beginsAt, p.id',
            )
            ->setParameters(new ArrayCollection([
                new Parameter('site', $plan->site),
                new Parameter('plan', $plan),
                new Parameter('from', new \DateTimeImmutable('@'.($plan->first()->epoch - $reach))),
                new Parameter('to', new \DateTimeImmutable('@'.($plan->last()->epoch + $reach))),
            ]))
            ->setMaxResults(self::MOST_AROUND)
            ->getResult();
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
