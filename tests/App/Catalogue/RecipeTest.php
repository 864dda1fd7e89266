<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Catalogue;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Catalogue\Product\ProductCatalogue;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Operations\Batch\BatchYield;
use Verjuicer\App\Operations\Pit\PitPicture;
use Verjuicer\App\Operations\Thermometer\DriftPicture;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitLog;
use Verjuicer\Tests\Core\Story;

/**
 * The small sums of the kitchen: recipes by weight, yields, the catalogue, and where the pictures of pits and
 * thermometers put things.
 */
final class RecipeTest extends TestCase
{
    /**
     * @param list<array{string, int|float, int|null}> $ingredients name, parts, cents a kilogram
     * @param list<float> $grams
     */
    #[DataProvider('doses')]
    public function testScalesByWeight(
        array $ingredients,
        int $dose,
        int $meat,
        array $grams,
        int $total,
        ?int $cents,
    ): void {
        $scaled = self::recipe($ingredients, $dose)->scaledTo($meat);
        self::assertSame($grams, array_column($scaled->lines, 'grams'));
        self::assertSame([$total, $cents], [$scaled->grams, $scaled->cents]);
    }

    /**
     * @return iterable<string, array{list<array{string, int|float, int|null}>, int, int, list<float>, int, int|null}>
     */
    public static function doses(): iterable
    {
        yield 'equal parts' => [[['Salt', 1, 100], ['Pepper', 1, 1400]], 20, 10_000, [100.0, 100.0], 200, 150];
        yield 'two to one' => [[['Salt', 2, 100], ['Pepper', 1, 100]], 30, 1000, [20.0, 10.0], 30, 3];
        yield 'parts with decimals' => [[['Water', 9.5, 0], ['Salt', 0.5, 90]], 100, 4600, [437.0, 23.0], 460, 2];
        yield 'small amounts to a tenth' => [[['Salt', 3, null], ['Cure', 0.25, null]], 22, 450, [9.1, 0.8], 10, null];
        yield 'a missing price is no price' => [
            [['Salt', 1, 100], ['Pepper', 1, null]],
            20,
            1000,
            [10.0, 10.0],
            20,
            null,
        ];
        yield 'no parts at all' => [[['Salt', 0, 100]], 20, 1000, [0.0], 20, 0];
    }

    public function testAllergensAreThoseOfTheSitesList(): void
    {
        $recipe = self::recipe([['Mustard', 1, null]], 10, ['mustard', 'sulphites', 'wheat']);
        self::assertSame(['wheat'], $recipe->allergens(), 'of the nine, wheat');
        $recipe->site->allergenList = AllergenList::Eu14;
        self::assertSame(['mustard', 'sulphites'], $recipe->allergens(), 'of the fourteen, the others');
        self::assertCount(9 + 1, AllergenList::Us9->allergens(), 'and alcohol');
        self::assertCount(14 + 1, AllergenList::Eu14->allergens());
    }

    public function testTheCatalogueIsWhole(): void
    {
        self::assertGreaterThanOrEqual(35, \count(ProductCatalogue::PRODUCTS));
        $names = $animals = [];
        foreach (ProductCatalogue::PRODUCTS as [$name, $animal, , , $grams, $spots, [$from, $to, $feel]]) {
            $names[] = $name;
            $animals[$animal->value] = true;
            self::assertGreaterThan(0, $grams, $name);
            self::assertNotSame([], $spots, $name);
            self::assertGreaterThanOrEqual($from, $to, $name);
            self::assertNotSame('', $feel, $name);
            foreach ($spots as [$spot, $where]) {
                self::assertMatchesRegularExpression('/^[a-z]+$/', $spot, 'a spot is typed in the log line');
                self::assertGreaterThan(10, \strlen($where));
            }
        }
        self::assertSame($names, array_values(array_unique($names)));
        foreach (['beef', 'pork', 'lamb', 'mutton', 'goat', 'chicken', 'turkey', 'duck', 'game'] as $animal) {
            self::assertArrayHasKey($animal, $animals);
        }
    }

    /** @param array<string, int|null> $weights */
    #[DataProvider('yields')]
    public function testAYieldNeverGuesses(
        array $weights,
        int $portions,
        ?int $cents,
        bool $hasAnything,
        ?int $share,
        ?int $centsAPortion,
        ?int $centsAKilogram,
    ): void {
        $yield = new BatchYield($weights, $portions, $cents);
        self::assertSame(
            [$hasAnything, $share, $centsAPortion, $centsAKilogram],
            [$yield->hasAnything(), $yield->share(2000), $yield->centsAPortion(), $yield->centsAKilogram()],
        );
    }

    /** @return iterable<string, array{array<string, int|null>, int, int|null, bool, int|null, int|null, int|null}> */
    public static function yields(): iterable
    {
        yield 'from purchase to plate' => [
            ['bought' => 4000, 'raw' => 3900, 'served' => 2000],
            10,
            4000,
            true,
            50,
            400,
            2000,
        ];
        yield 'nothing bought by a lot' => [
            ['bought' => null, 'raw' => 5000, 'served' => 2000],
            10,
            null,
            true,
            40,
            null,
            null,
        ];
        yield 'served, and not weighed' => [
            ['bought' => 4000, 'raw' => 3900, 'served' => null],
            10,
            4000,
            true,
            50,
            400,
            null,
        ];
        yield 'not served yet' => [['bought' => 4000, 'raw' => 3900, 'served' => null], 0, 4000, true, 50, null, null];
        yield 'only one weight is no yield' => [
            ['bought' => null, 'raw' => 3900, 'served' => null],
            0,
            null,
            false,
            51,
            null,
            null,
        ];
        yield 'nothing' => [['bought' => null, 'raw' => null], 0, null, false, null, null, null];
    }

    public function testADriftIsDrawnBetweenTheLinesItMustStayIn(): void
    {
        $check = static fn (int $at, string $read): AccuracyCheck => new AccuracyCheck(
            'id',
            Instant::ofEpoch($at),
            'MR',
            'ice',
            Temperature::fahrenheit('32'),
            Temperature::fahrenheit($read),
            'kept',
            null,
            true,
        );
        $picture = DriftPicture::of([$check(0, '32'), $check(50, '34'), $check(100, '45')], 20, Instant::ofEpoch(100));
        self::assertSame([44.0, 342.0, 640.0], array_column($picture->marks, 'x'));
        self::assertSame(
            [(float) $picture->middle, (float) $picture->top],
            [$picture->marks[0]['y'], $picture->marks[1]['y']],
        );
        self::assertGreaterThanOrEqual(0, $picture->marks[2]['y'], 'far off is drawn at the edge, not beyond it');
        self::assertSame([], DriftPicture::of([], 20, Instant::ofEpoch(100))->marks);
    }

    public function testAPitIsDrawnWithItsSetPointReadingsAndSigns(): void
    {
        $entry = static fn (string $at, PitSign $sign, ?string $temp = null): PitEntry => new PitEntry(
            Story::at($at),
            $sign,
            $temp === null ? null : Temperature::fahrenheit($temp),
        );
        $log = new PitLog([
            $entry('-900', PitSign::Set, '225'),
            $entry('-300', PitSign::Lit),
            $entry('-200', PitSign::Set, '275'),
            $entry('-100', PitSign::Reading, '270'),
            $entry('-50', PitSign::Reading, '340'),
            $entry('-10', PitSign::Fuel),
        ]);
        $house = Story::rules()->house();
        $picture = PitPicture::of(
            $log,
            $log->strays($house->pitDrift, $house->pitDriftFor, Story::at('0')),
            self::site(),
            Story::at('0'),
            new MeasureFormatter(),
        );
        self::assertMatchesRegularExpression(
            '/^M52 [\d.]+H[\d.]+V[\d.]+H852$/',
            $picture->set,
            'from the edge, a step, to now',
        );
        self::assertCount(2, $picture->readings);
        self::assertSame(['lit', 'set', 'fuel'], array_column($picture->signs, 'sign'));
        self::assertSame([true], array_column($picture->strays, 'is_hot'));
        self::assertLessThan($picture->readings[0]['y'], $picture->readings[1]['y'], 'hot is up');
        self::assertSame(
            '',
            PitPicture::of(new PitLog([]), [], self::site(), Story::at('0'), new MeasureFormatter())->set,
        );
    }

    /**
     * @param list<array{string, int|float, int|null}> $ingredients
     * @param list<string> $allergens
     */
    private static function recipe(array $ingredients, int $dose, array $allergens = []): Recipe
    {
        return new Recipe(
            self::site(),
            'Rub',
            RecipeKind::Rub,
            $dose,
            array_map(
                static fn (array $one): array => [
                    'name' => $one[0],
                    'parts' => $one[1],
                    'cents_per_kg' => $one[2],
                    'allergens' => $allergens,
                ],
                $ingredients,
            ),
        );
    }

    private static function site(): Site
    {
        return new Site(
            'Quarry Lane Smokehouse',
            'America/Denver',
            TemperatureUnit::Fahrenheit,
            1610,
            'us-food-code-2022',
        );
    }
}
