<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Food;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Surroundings;

final class HoldingTest extends TestCase
{
    private const WORDS = [
        'rack' => ['rack', 'rack under foil', 'foil'],
        'towels' => ['towels', 'towel'],
        'box' => ['box', 'insulated box', 'cooler'],
        'dead_oven' => ['dead_oven', 'switched-off oven', 'dead oven'],
        'counter' => ['counter', 'open counter', 'board'],
        'cabinet' => ['cabinet', 'holding cabinet', 'Holding Cabinet '],
        'steam_table' => ['steam_table', 'steam table'],
        'chafing_dish' => ['chafing_dish', 'chafing dish'],
        'carrier' => ['carrier'],
        'walk_in' => ['walk_in', 'walk-in', 'walk in', 'walk-in rack', 'fridge', 'refrigerator'],
        'shallow_pans' => ['shallow_pans', 'shallow pans', 'shallow pan', 'pans', 'pan'],
        'blast_chiller' => ['blast_chiller', 'blast chiller', 'blast'],
        'ice_bath' => ['ice_bath', 'ice bath', 'ice', 'ice water'],
        'ice_wand' => ['ice_wand', 'ice wand', 'wand'],
        'freezer' => ['freezer', 'chest freezer'],
    ];

    public function testWordsNameAKindOfPlaceWholeAndNotInsideOthers(): void
    {
        self::assertSame(array_column(Holding::cases(), 'value'), array_keys(self::WORDS), 'every kind has its words');
        foreach (self::WORDS as $value => $words) {
            foreach ($words as $word) {
                self::assertSame($value, Holding::named($word)?->value, $word);
                self::assertNull(Holding::named('x'.trim($word)), 'x'.$word);
            }
        }
        foreach (['sliced', 'japan', 'pancake rack', 'icebox', 'carrier 2', ''] as $other) {
            self::assertNull(Holding::named($other), $other);
        }
    }

    #[DataProvider('kinds')]
    public function testIsWarmOrColdOrNeither(Holding $holding): void
    {
        $surroundings = Surroundings::of($holding)->celsius ?? [60.0, 60.0];
        self::assertFalse($holding->isWarm() && $holding->isCold());
        self::assertSame($holding->isCold(), $surroundings[1] <= 7.0, 'cold is where it is cold');
        self::assertSame($holding->isWarm(), $surroundings[0] >= 55.0, 'warm is where it is kept hot');
    }

    /** @return iterable<string, array{Holding}> */
    public static function kinds(): iterable
    {
        foreach (Holding::cases() as $holding) {
            yield $holding->value => [$holding];
        }
    }
}
