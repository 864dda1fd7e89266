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
        return $this->entities
            ->getRepository(Recipe::class)
            ->findBy(['site' => $site, 'isRetired' => false], ['kind' => 'ASC', 'name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Recipe
    {
        $recipe = Uuid::isValid($id) ? $this->entities->find(Recipe::class, Uuid::fromString($id)) : null;

        return $recipe !== null && $recipe->site->id->equals($site->id) ? $recipe : null;
    }

    /**
     * An addition without a recipe: free text, with its allergens ticked.
     *
     * @param list<string> $allergens
     */
    public function remember(Site $site, string $name, RecipeKind $kind, array $allergens): Recipe
    {
        $known = $this->named($site, $name);
        if ($known !== null) {
            return $known;
        }
        $recipe = new Recipe($site, $name, $kind, 0, [
            ['name' => $name, 'parts' => 1, 'cents_per_kg' => null, 'allergens' => $allergens],
        ]);
        $this->entities->persist($recipe);
        $this->entities->flush();

        return $recipe;
    }

    public function named(Site $site, string $name): ?Recipe
    {
        return $this->entities
            ->getRepository(Recipe::class)
            ->findOneBy(['site' => $site, 'name' => $name, 'isRetired' => false]);
    }
}
