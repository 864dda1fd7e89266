<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\UnitPreferences;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Ruleset\CuringRules;

/** Recipes by weight: scaled to the meat at hand, with their cost and their allergens. */
#[Route('/recipes')]
final class RecipeController extends FormController
{
    private const MOST_INGREDIENTS = 10;
    /** The stored unit of the dose: grams per kilogram of meat for each percent of its weight. */
    private const PERCENT = 10;

    public function __construct(
        private readonly Recipes $recipes,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentAccount $account,
        private readonly UnitPreferences $habits,
        private readonly MeasureFormatter $figures,
        private readonly SiteRules $rules,
    ) {
    }

    #[Route('', name: 'recipes', methods: ['GET'])]
    public function list(): Response
    {
        return $this->render('catalogue/recipe/list.html.twig', [
            'recipes' => $this->recipes->of($this->account->get()->site),
        ]);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/new', name: 'recipe_new', methods: ['GET', 'POST'])]
    public function new(Request $request): Response
    {
        return $request->isMethod('POST')
            ? $this->keep($this->read($request, 'recipe'), null)
            : $this->form($this->blank(), null, $this->unitOfMeat());
    }

    #[Route('/{recipe}', name: 'recipe', requirements: ['recipe' => Requirement::UUID], methods: ['GET'])]
    public function show(string $recipe, Request $request): Response
    {
        $recipe = $this->find($recipe);
        $filled = [
            'name' => $recipe->name,
            'kind' => $recipe->kind->value,
            'dose' => (string) ($recipe->gramsPerKg / self::PERCENT),
        ];
        $kilograms = $this->habits->weightUnit()->grams() / 1000;
        foreach ($recipe->ingredients as $index => $ingredient) {
            $filled += [
                'name'.$index => $ingredient['name'],
                'parts'.$index => (string) $ingredient['parts'],
                'price'.$index => $ingredient['cents_per_kg'] === null
                        ? ''
                        : number_format($ingredient['cents_per_kg'] * $kilograms / 100, 2, '.', ''),
            ];
            $filled['nitrite'.$index] = (string) ($ingredient['nitrite_percent'] ?? '');
            foreach ($ingredient['allergens'] as $allergen) {
                $filled['a'.$index.'_'.$allergen] = '1';
            }
        }
        $meat = FormInput::asked($request)->grams('meat') ?? $this->unitOfMeat();

        return $this->form($this->blank($filled), $recipe, $meat);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{recipe}', name: 'recipe_keep', requirements: ['recipe' => Requirement::UUID], methods: ['POST'])]
    public function edit(string $recipe, Request $request): Response
    {
        return $this->keep($this->read($request, 'recipe'), $this->find($recipe));
    }

    private function keep(FormInput $input, ?Recipe $recipe): Response
    {
        $site = $this->account->get()->site;
        $name = $input->text('name', true, 80);
        $kind = $input->choice('kind', RecipeKind::class, true);
        $dose = $this->dose($input);
        $inKilogram = 1000 / $this->habits->weightUnit()->grams();
        $ingredients = [];
        for ($index = 0; $index < self::MOST_INGREDIENTS; ++$index) {
            $ingredient = $input->text('name'.$index, most: 60);
            if ($ingredient === '') {
                continue;
            }
            $price = $input->cents('price'.$index);
            $nitrite = $input->number('nitrite'.$index, most: 100);
            $ingredients[] = [
                'name' => $ingredient,
                'parts' => $input->number('parts'.$index, true) ?? 0,
                'cents_per_kg' => $price === null ? null : (int) round($price * $inKilogram),
                'allergens' => array_values(
                    array_filter(
                        $site->allergenList->allergens(),
                        static fn (string $allergen): bool => $input->isOn('a'.$index.'_'.$allergen),
                    ),
                ),
                ...($nitrite === null || $nitrite <= 0.0 ? [] : ['nitrite_percent' => $nitrite]),
            ];
        }
        if ($ingredients === []) {
            $input->refuse('name0', 'form.problem.required');
        }
        if (!$input->isGood() || $kind === null || $dose === null) {
            return $this->form($input, $recipe, $this->unitOfMeat());
        }
        $kept = $recipe ?? new Recipe($site, $name, $kind, $dose, $ingredients);
        [$kept->name, $kept->kind, $kept->gramsPerKg, $kept->ingredients, $kept->isRetired] = [
            $name,
            $kind,
            $dose,
            $ingredients,
            $input->isOn('retired'),
        ];
        $this->entities->persist($kept);
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->form($input, $recipe, $this->unitOfMeat());
        }

        return $this->kept('recipe.kept', 'recipes');
    }

    private function form(FormInput $input, ?Recipe $recipe, int $gramsOfMeat): Response
    {
        return $this->page('catalogue/recipe/edit.html.twig', $input, [
            'recipe' => $recipe,
            'kinds' => RecipeKind::cases(),
            'rows' => range(0, self::MOST_INGREDIENTS - 1),
            'allergens' => $this->account->get()->site->allergenList->allergens(),
            'meat' => $gramsOfMeat,
            'scale' => FormInput::filled(['meat' => $this->figures->weight($gramsOfMeat)])->typed,
            'scaled' => $recipe?->scaledTo($gramsOfMeat),
            'nitrite' => $recipe?->nitritePpm(),
            'nitrite_limits' => $this->rules->of($this->account->get()->site)->get(CuringRules::class)->limits,
        ]);
    }

    /** @return int|null grams per kilogram of meat, which is typed as a percentage of its weight */
    private function dose(FormInput $input): ?int
    {
        $percent = $input->number('dose', true, 500);
        $dose = $percent === null ? null : self::PERCENT * $percent;
        if ($dose !== null && ($dose < 1 || abs($dose - round($dose)) > 1e-6)) {
            $input->refuse('dose', 'recipe.problem.dose');
        }

        return $dose === null ? null : (int) round($dose);
    }

    private function unitOfMeat(): int
    {
        return (int) round($this->habits->weightUnit()->grams());
    }

    private function find(string $id): Recipe
    {
        return $this->recipes->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
