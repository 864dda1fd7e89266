<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Tests\Core\Story;

/**
 * Which rule every animal in every form falls under; and every row of every rule at its limit, a tenth and a second to
 * either side.
 */
final class CookingCategoryTest extends TestCase
{
    #[DataProvider('products')]
    public function testEveryProductHasItsRule(
        string $expected,
        Animal $animal,
        Form $form,
        Integrity $integrity,
        bool $isPoultryLike = false,
        bool $isPierced = false,
    ): void {
        self::assertSame(
            $expected,
            CookingCategory::of($animal, $form, $integrity, $isPoultryLike, $isPierced)->value ?? 'none',
        );
    }

    /** @return iterable<string, array{0: string, 1: Animal, 2: Form, 3: Integrity, 4?: bool, 5?: bool}> */
    public static function products(): iterable
    {
        foreach (Animal::cases() as $animal) {
            $isBird = \in_array(
                $animal,
                [Animal::Chicken, Animal::Turkey, Animal::Duck, Animal::Goose, Animal::GameBird],
                true,
            );
            foreach (Form::cases() as $form) {
                $expected = match (true) {
                    $form === Form::CommercialReadyToEat => 'none',
                    $form === Form::Side => 'side',
                    $isBird => 'poultry',
                    $form === Form::Comminuted => 'non_intact',
                    $form === Form::Roast && $animal !== Animal::Fish => 'roast',
                    default => 'cut',
                };
                yield "$animal->value $form->value" => [$expected, $animal, $form, Integrity::Intact];
            }
        }
        yield 'a bladed steak' => ['non_intact', Animal::Beef, Form::Cut, Integrity::NonIntact];
        yield 'an injected roast' => ['non_intact', Animal::Pork, Form::Roast, Integrity::Intact, false, true];
        yield 'a stuffed roast' => ['poultry', Animal::Lamb, Form::Roast, Integrity::Intact, true];
        yield 'a stuffed and injected roast keeps the hotter rule' => [
            'poultry',
            Animal::Lamb,
            Form::Roast,
            Integrity::NonIntact,
            true,
            true,
        ];
        yield 'an injected bird stays a bird' => [
            'poultry',
            Animal::Turkey,
            Form::Roast,
            Integrity::Intact,
            false,
            true,
        ];
        yield 'ready to eat stays so' => [
            'none',
            Animal::Turkey,
            Form::CommercialReadyToEat,
            Integrity::NonIntact,
            true,
            true,
        ];
    }

    /**
     * The dwell of a row is reached by two readings that far apart, less the settled reading's 20 s; a row cooler is
     * not by any time short of its own.
     */
    #[DataProvider('rows')]
    public function testEveryRowAtItsLimit(string $product, string $oven, string $temperature, int $seconds): void
    {
        $needed = max(0, $seconds - 20);
        self::assertSame('met', self::cooked($product, $oven, $temperature, $needed), 'at the limit');
        if ($needed > 0) {
            self::assertNotSame('met', self::cooked($product, $oven, $temperature, $needed - 1), 'a second short');
        }
    }

    /** @return iterable<string, array{string, string, string, int}> */
    public static function rows(): iterable
    {
        $products = [
            'poultry' => ['turkey roast', ''],
            'non_intact' => ['pork comminuted', ''],
            'roast' => ['lamb roast 3kg', ' oven=convection set=325'],
            'cut' => ['beef cut', ''],
            'side' => ['none side', ''],
        ];
        foreach (CookingCategory::cases() as $category) {
            foreach (Story::rules()->get(CookingRules::class)->of($category)->rows as $row) {
                foreach (TemperatureUnit::cases() as $unit) {
                    $printed = $row->temperature->printedIn($unit);
                    $written = $printed->number().($unit === TemperatureUnit::Celsius ? 'c' : '');
                    yield "$category->value at $written" => [
                        ...$products[$category->value],
                        $written,
                        $row->dwell->seconds,
                    ];
                }
            }
        }
    }

    #[DataProvider('coolest')]
    public function testATenthUnderTheCoolestRowIsBroken(string $product, string $oven, CookingCategory $category): void
    {
        foreach (TemperatureUnit::cases() as $unit) {
            $row = Story::rules()->get(CookingRules::class)->of($category)->rows[0]->temperature->printedIn($unit);
            $under = Temperature::ofTenths($row->tenths - 1, $unit);
            self::assertSame(
                'broken',
                self::cooked(
                    $product,
                    $oven,
                    $under->number().($unit === TemperatureUnit::Celsius ? 'c' : ''),
                    86_400,
                ),
            );
        }
    }

    /** @return iterable<array{string, string, CookingCategory}> */
    public static function coolest(): iterable
    {
        yield ['turkey roast', '', CookingCategory::Poultry];
        yield ['pork comminuted', '', CookingCategory::NonIntact];
        yield ['lamb roast 3kg', ' oven=convection set=325', CookingCategory::Roast];
        yield ['beef cut', '', CookingCategory::Cut];
        yield ['none side', '', CookingCategory::Side];
    }

    /** Held at a temperature for so long, read every 20 minutes. */
    private static function cooked(string $product, string $oven, string $temperature, int $seconds): string
    {
        $lines = ['-60 cook'.$oven];
        for ($at = 0; $at < $seconds; $at += 1200) {
            $lines[] = intdiv($at, 60).':'.$at % 60 .' '.$temperature;
        }
        $lines[] = intdiv($seconds, 60).':'.$seconds % 60 .' '.$temperature;
        $lines[] = intdiv($seconds, 60) + 1 .' serve';

        return Story::of(...$lines)->about($product)->verdicts('2000')['cook'];
    }
}
