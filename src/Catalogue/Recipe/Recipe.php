<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Weight;

/**
 * A rub, binder, brine, spritz or sauce by weight. A batch copies name, weight and allergens, so a later edit never
 * changes a record.
 */
#[ORM\Entity]
#[ORM\Table(name: 'recipe')]
class Recipe
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column]
    public bool $isRetired = false;

    /**
     * @param list<array{name: string, parts: int|float, cents_per_kg: int|null, allergens: list<string>,
     *     nitrite_percent?: float}> $ingredients
     */
    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public string $name,
        #[ORM\Column(length: 16)] public RecipeKind $kind,
        /** How much of it goes on a kilogram of meat. */
        #[ORM\Column] public int $gramsPerKg,
        #[ORM\Column(type: 'json')] public array $ingredients,
    ) {
        $this->id = Uuid::v7();
    }

    public function copiedTo(Site $site): self
    {
        return new self($site, $this->name, $this->kind, $this->gramsPerKg, $this->ingredients);
    }

    /** @return list<string> keys of the site's list, in its order */
    public function allergens(): array
    {
        $in = array_merge(
            ...array_map(static fn (array $ingredient): array => $ingredient['allergens'], $this->ingredients),
        );

        return array_values(array_intersect($this->site->allergenList->allergens(), $in));
    }

    /**
     * Sodium nitrite that goes in by weight, if all of the recipe does: mg for each kg of meat, which is ppm.
     *
     * @return float|null null where nothing in it is said to hold any, or how much goes on meat is not known
     */
    public function nitritePpm(): ?float
    {
        $parts = array_sum(array_column($this->ingredients, 'parts'));
        $nitrite = 0.0;
        foreach ($this->ingredients as $one) {
            $nitrite += ($one['parts'] * ($one['nitrite_percent'] ?? 0.0)) / 100;
        }

        return $nitrite === 0.0 || $parts <= 0 || $this->gramsPerKg === 0
            ? null
            : (1000 * $this->gramsPerKg * $nitrite) / $parts;
    }

    /** How much of it goes on so much meat. */
    public function weightFor(int $gramsOfMeat): Weight
    {
        return Weight::ofGrams(max(1, $this->scaledTo($gramsOfMeat)->grams));
    }

    /** For so much meat. */
    public function scaledTo(int $gramsOfMeat): Scaled
    {
        $parts = array_sum(array_column($this->ingredients, 'parts'));
        $total = ($gramsOfMeat * $this->gramsPerKg) / 1000;
        $lines = [];
        $cents = 0.0;
        $isPriced = $this->ingredients !== [];
        foreach ($this->ingredients as $ingredient) {
            $grams = $parts > 0 ? ($total * $ingredient['parts']) / $parts : 0.0;
            $isPriced = $isPriced && $ingredient['cents_per_kg'] !== null;
            $cents += ($grams / 1000) * ($ingredient['cents_per_kg'] ?? 0);
            $lines[] = [
                'name' => $ingredient['name'],
                'grams' => round($grams, $grams < 100 ? 1 : 0),
                'allergens' => $ingredient['allergens'],
            ];
        }

        return new Scaled($lines, (int) round($total), $isPriced ? (int) round($cents) : null);
    }
}
