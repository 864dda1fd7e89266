<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Pit;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** The pits of a site. */
final readonly class Pits
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Pit> by name */
    public function of(Site $site): array
    {
        return $this->entities->getRepository(Pit::class)->findBy(['site' => $site], ['name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Pit
    {
        $pit = Uuid::isValid($id) ? $this->entities->find(Pit::class, Uuid::fromString($id)) : null;

        return $pit !== null && $pit->site->id->equals($site->id) ? $pit : null;
    }

    public function named(Site $site, string $name): ?Pit
    {
        foreach ($this->of($site) as $pit) {
            if (mb_strtolower($pit->name) === mb_strtolower($name)) {
                return $pit;
            }
        }

        return null;
    }
}
