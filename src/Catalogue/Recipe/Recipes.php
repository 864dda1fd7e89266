<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** The recipes of a site. */
final readonly class Recipes
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Recipe> */
    public function of(Site $site): array
    {
        return $this->entities->getRepository(Recipe::class)->findBy(['site' => $site, 'isRetired' => false], ['kind' => 'ASC', 'name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Recipe
    {
        $recipe = Uuid::isValid($id) ? $this->entities->find(Recipe::class, Uuid::fromString($id)) : null;

        return $recipe !== null && $recipe->site->id->equals($site->id) ? $recipe : null;
    }

    public function named(Site $site, string $name): ?Recipe
    {
        return $this->entities->getRepository(Recipe::class)->findOneBy(['site' => $site, 'name' => $name]);
    }
}
