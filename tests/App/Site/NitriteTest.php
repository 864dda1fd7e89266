<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Reporting\Sop\GuidedText;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Tests\App\KitchenTestCase;

/** What nitrite goes in by the weights of a recipe stands beside what is usual, and advises nothing. */
final class NitriteTest extends KitchenTestCase
{
    /**
     * @param list<array{int|float, float|null}> $ingredients parts, and nitrite in hundredths
     */
    #[DataProvider('recipes')]
    public function testGoesInByWeight(int $dose, array $ingredients, ?float $ppm): void
    {
        $recipe = new Recipe($this->logIn()->site, 'x', RecipeKind::Rub, $dose, array_map(
            static fn (array $one): array => ['name' => 'y', 'parts' => $one[0]]
                + ['cents_per_kg' => null, 'allergens' => []]
                + ($one[1] === null ? [] : ['nitrite_percent' => $one[1]]),
            $ingredients,
        ));
        $ppm === null
            ? self::assertNull($recipe->nitritePpm())
            : self::assertEqualsWithDelta($ppm, $recipe->nitritePpm(), 1e-9);
    }

    /** @return iterable<string, array{int, list<array{int|float, float|null}>, float|null}> */
    public static function recipes(): iterable
    {
        // 25 g of cure on a kilogram, a tenth of it curing salt of 6.25 %: 2.5 g, 156.25 mg.
        yield 'a tenth of curing salt' => [25, [[9, null], [1, 6.25]], 156.25];
        yield 'two salts' => [20, [[1, 6.25], [1, 0.6], [2, null]], 20 * 1000 * (0.0625 + 0.006) / 4];
        yield 'none said' => [25, [[9, null], [1, null]], null];
        yield 'no dose' => [0, [[1, 6.25]], null];
    }

    public function testStandsOnTheRecipeTheProductAndThePlan(): void
    {
        $site = $this->logIn('dell')->site;
        $form = $this->client->request('GET', '/recipes/new')->filter('main form')->form([
            'name' => 'Ham cure', 'kind' => 'brine', 'dose' => '3',
            'name0' => 'Salt', 'parts0' => '9', 'name1' => 'Curing salt', 'parts1' => '1', 'nitrite1' => '6,25',
        ]);
        $this->client->submit($form);
        self::assertResponseRedirects();
        $recipe = $this->service(Recipes::class)->named($site, 'Ham cure');
        self::assertNotNull($recipe);
        $page = $this->client->request('GET', '/recipes/'.$recipe->id->toRfc4122());
        $this->assertSaid($page);
        self::assertSame('6.25', $page->filter('[name=nitrite1]')->attr('value'));
        $product = $this->words("SELECT id FROM product WHERE name = 'Mutton ham'");
        $page = $this->client->request('GET', "/products/$product");
        self::assertStringNotContainsString('Ham cure', $page->filter('main')->text());
        $this->client->submit($page->selectButton('Save')->form(['cured' => '1']));
        $this->assertSaid($this->client->request('GET', "/products/$product"));
        self::assertStringContainsString(
            'Ham cure 187.5 ppm',
            $this->service(GuidedText::class)->of($site, ProcedureKind::Preserving),
        );
    }

    public function testWhatIsCuredByNoRecipeThatSaysSoIsSaid(): void
    {
        $this->logIn('dell');
        $product = $this->words("SELECT id FROM product WHERE name = 'Mutton ham'");
        $page = $this->client->request('GET', "/products/$product");
        self::assertStringNotContainsString(
            'No recipe here states its nitrite content',
            $page->filter('aside')->text(),
        );
        $this->client->submit($page->selectButton('Save')->form(['cured' => '1']));
        $page = $this->client->request('GET', "/products/$product");
        self::assertStringContainsString('No recipe here states its nitrite content', $page->filter('aside')->text());
    }

    private function assertSaid(Crawler $page): void
    {
        $text = preg_replace('/\s+/', ' ', $page->filter('aside')->text());
        foreach (
            [
                '187.5 ppm of sodium nitrite',
                'chopped or ground 9 CFR 424.21(c) 156 ▲ above the limit',
                'in a pickle 9 CFR 424.21(c) 200 within the limit',
                'For information only',
            ] as $said
        ) {
            self::assertStringContainsString($said, (string) $text);
        }
    }
}
