<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Doneness;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Template\CookTemplate;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Json\Fields;

/** Named items of a kitchen, as `verjuicer-site/1` writes them; a wrong one becomes a problem. */
final readonly class KitchenInventory
{
    public static function supplier(Fields $one, string $name, Site $site): Supplier
    {
        return new Supplier($site, $name);
    }

    public static function pit(Fields $one, string $name, Site $site): Pit
    {
        $oven = $one->requiredChoice('oven', Oven::class) ?? Oven::cases()[0];

        return new Pit($site, $name, $oven, $one->counted('capacity_kg'));
    }

    public static function unit(Fields $one, string $name, Site $site): HoldUnit
    {
        $kind = $one->requiredChoice('kind', Holding::class) ?? Holding::Cabinet;

        return new HoldUnit($site, $name, $kind, $one->count('check_minutes', 60));
    }

    public static function product(Fields $one, string $name, Site $site): Product
    {
        $spots = [];
        foreach ($one->objects('spots', false) as $spot) {
            $spots[] = ['name' => $spot->requiredText('name') ?? '', 'where' => $spot->text('where') ?? ''];
        }
        $product = new Product(
            $site,
            $name,
            $one->requiredChoice('animal', Animal::class) ?? Animal::Beef,
            $one->requiredChoice('form', Form::class) ?? Form::Roast,
            $one->requiredChoice('integrity', Integrity::class) ?? Integrity::Intact,
            $one->counted('usual_grams'),
            $spots,
        );
        $product->wrap = $one->text('wrap') ?? '';
        $product->rest = $one->text('rest') ?? '';
        $product->yieldLeast = $one->counted('yield_least');
        $product->yieldMost = $one->counted('yield_most');
        $product->treatments = array_column($one->choices('treatments', Treatment::class), 'value');
        $product->isRetired = $one->flag('retired');
        $doneness = $one->has('doneness') ? $one->object('doneness') : null;
        [$from, $to] = [$doneness?->requiredTemperature('from'), $doneness?->requiredTemperature('to')];
        if ($from !== null && $to !== null) {
            $product->liked(new Doneness($from, $to, $doneness?->text('feel') ?? ''));
        }

        return $product;
    }

    public static function recipe(Fields $one, string $name, Site $site): Recipe
    {
        $ingredients = [];
        foreach ($one->objects('ingredients', true) as $part) {
            $nitrite = $part->number('nitrite_percent');
            $ingredients[] = [
                'name' => $part->requiredText('name') ?? '',
                'parts' => $part->number('parts') ?? 0,
                'cents_per_kg' => $part->whole('cents_per_kg'),
                'allergens' => $part->texts('allergens'),
                ...($nitrite === null ? [] : ['nitrite_percent' => (float) $nitrite]),
            ];
        }
        $recipe = new Recipe(
            $site,
            $name,
            $one->requiredChoice('kind', RecipeKind::class) ?? RecipeKind::Rub,
            $one->requiredWhole('grams_per_kg'),
            $ingredients,
        );
        $recipe->isRetired = $one->flag('retired');

        return $recipe;
    }

    public static function template(Fields $one, string $name, Site $site): CookTemplate
    {
        $template = new CookTemplate($site, $name, $one->texts('lines'));
        $template->isRetired = $one->flag('retired');

        return $template;
    }
}
