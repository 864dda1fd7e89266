<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Product;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\CuringRules;

/** The site's products: target doneness and, separately, the code requirement. */
#[Route('/products')]
final class ProductController extends FormController
{
    private const MOST_SPOTS = 4;

    public function __construct(
        private readonly Products $products,
        private readonly SiteRules $rules,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentAccount $account,
        private readonly MeasureFormatter $figures,
        private readonly Recipes $recipes,
    ) {
    }

    #[Route('', name: 'products', methods: ['GET'])]
    public function list(): Response
    {
        $products = $this->products->of($this->account->get()->site);

        return $this->render('catalogue/product/list.html.twig', [
            'products' => array_map(
                fn (Product $product): array => ['product' => $product]
                    + $this->law($product->animal, $product->form, $product->integrity),
                $products,
            ),
        ]);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/new', name: 'product_new', methods: ['GET', 'POST'])]
    public function new(Request $request): Response
    {
        return $request->isMethod('POST')
            ? $this->keep($this->read($request, 'product'), null)
            : $this->form($this->blank(), null);
    }

    #[Route('/{product}', name: 'product', requirements: ['product' => Requirement::UUID], methods: ['GET'])]
    public function show(string $product): Response
    {
        $product = $this->find($product);
        $filled = [
            'name' => $product->name,
            'animal' => $product->animal->value,
            'form' => $product->form->value,
            'integrity' => $product->integrity->value,
            'weight' => $product->usualGrams === null ? '' : $this->figures->weight($product->usualGrams),
            'wrap' => $product->wrap,
            'rest' => $product->rest,
            'yield_least' => (string) $product->yieldLeast,
            'yield_most' => (string) $product->yieldMost,
        ];
        foreach ($product->spots as $index => $spot) {
            $filled['spot'.$index] = $spot['name'];
            $filled['where'.$index] = $spot['where'];
        }
        $doneness = $product->doneness();
        foreach ($product->treatments as $treatment) {
            $filled[$treatment] = '1';
        }
        if ($doneness !== null) {
            $filled += [
                'from' => $doneness->from->number().strtolower($doneness->from->unit->value),
                'to' => $doneness->to->number().strtolower($doneness->to->unit->value),
                'feel' => $doneness->feel,
            ];
        }

        return $this->form($this->blank($filled), $product);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{product}', name: 'product_keep', requirements: ['product' => Requirement::UUID], methods: ['POST'])]
    public function edit(string $product, Request $request): Response
    {
        return $this->keep($this->read($request, 'product'), $this->find($product));
    }

    private function keep(FormInput $input, ?Product $product): Response
    {
        $site = $this->account->get()->site;
        $name = $input->text('name', true, 80);
        $animal = $input->choice('animal', Animal::class, true);
        $form = $input->choice('form', Form::class, true);
        $integrity = $input->choice('integrity', Integrity::class, true);
        $grams = $input->grams('weight', known: $product?->usualGrams);
        $from = $input->temperature('from', $site->unit);
        $to = $input->temperature('to', $site->unit);
        if (
            ($from === null) !== ($to === null)
            || ($from !== null && $to !== null && ($from->unit !== $to->unit || $to->tenths < $from->tenths))
        ) {
            $input->refuse('to', 'product.problem.band');
        }
        if ($animal !== null && $form !== null && ($animal === Animal::None) !== ($form === Form::Side)) {
            $input->refuse('form', 'product.problem.side');
        }
        $least = $input->whole('yield_least', 5, 100);
        $most = $input->whole('yield_most', 5, 100);
        if (($least === null) !== ($most === null) || $most < $least) {
            $input->refuse('yield_most', 'product.problem.yield');
        }
        $spots = [];
        for ($index = 0; $index < self::MOST_SPOTS; ++$index) {
            $spot = mb_strtolower($input->text('spot'.$index, most: 24));
            if ($spot !== '') {
                $spots[] = ['name' => $spot, 'where' => $input->text('where'.$index)];
            }
        }
        if (!$input->isGood() || $animal === null || $form === null || $integrity === null) {
            return $this->form($input, $product);
        }
        $kept = $product ?? new Product($site, $name, $animal, $form, $integrity, $grams, $spots);
        [$kept->name, $kept->animal, $kept->form, $kept->integrity, $kept->usualGrams, $kept->spots] = [
            $name,
            $animal,
            $form,
            $integrity,
            $grams,
            $spots,
        ];
        [$kept->wrap, $kept->rest, $kept->isRetired] = [
            $input->text('wrap'),
            $input->text('rest'),
            $input->isOn('retired'),
        ];
        [$kept->yieldLeast, $kept->yieldMost] = [$least, $most];
        $kept->treatments = array_values(
            array_filter(
                array_column(Treatment::cases(), 'value'),
                static fn (string $one): bool => $input->isOn($one),
            ),
        );
        $kept->liked($from === null || $to === null ? null : new Doneness($from, $to, $input->text('feel')));
        $this->entities->persist($kept);
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->form($input, $product);
        }

        return $this->kept('product.kept', 'products');
    }

    private function form(FormInput $input, ?Product $product): Response
    {
        $law = $product === null ? [] : $this->law($product->animal, $product->form, $product->integrity);
        $isCured = \in_array(Treatment::Cured->value, $product->treatments ?? [], true);

        return $this->page(
            'catalogue/product/edit.html.twig',
            $input,
            $law + [
                'product' => $product,
                'treatments' => array_column(Treatment::cases(), 'value'),
                // A recipe's contents are shown where meat is marked as cured.
                'is_cured' => $isCured,
                'cures' => $isCured
                    ? array_filter(
                        $this->recipes->of($this->account->get()->site),
                        static fn (Recipe $one): bool => $one->nitritePpm() !== null,
                    )
                    : [],
                'nitrite_limits' => $this->rules->of($this->account->get()->site)->get(CuringRules::class)->limits,
                'site' => $this->account->get()->site,
                'animals' => Animal::cases(),
                'forms' => Form::cases(),
                'integrities' => Integrity::cases(),
                'most_spots' => self::MOST_SPOTS,
            ],
        );
    }

    private function find(string $id): Product
    {
        return $this->products->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }

    /** @return array<string, mixed> the rule for it as it is, and once injected, bladed or stuffed */
    private function law(Animal $animal, Form $form, Integrity $integrity): array
    {
        $cooking = $this->rules->of($this->account->get()->site)->get(CookingRules::class);
        $category = CookingCategory::of($animal, $form, $integrity, false, false);
        $pierced = CookingCategory::of($animal, $form, $integrity, false, true);

        return [
            'rule' => $category === null ? null : $cooking->of($category),
            'pierced' => $pierced === null || $pierced === $category ? null : $cooking->of($pierced),
            'low_rows' => $cooking->lowRoastRows,
        ];
    }
}
