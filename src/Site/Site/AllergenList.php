<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

/** Whose list of major allergens a site works with. The members are translation keys. */
enum AllergenList: string
{
    case Us9 = 'us9';
    case Eu14 = 'eu14';

    /** Asked together with allergens, but none of them. */
    public const ALCOHOL = 'alcohol';

    /** @return list<string> names on a label: the major allergens, and alcohol */
    public function allergens(): array
    {
        return match ($this) {
            self::Us9 => [
                'milk',
                'egg',
                'fish',
                'crustaceans',
                'tree_nuts',
                'peanuts',
                'wheat',
                'soy',
                'sesame',
                self::ALCOHOL,
            ],
            self::Eu14 => [
                'gluten',
                'crustaceans',
                'egg',
                'fish',
                'peanuts',
                'soy',
                'milk',
                'tree_nuts',
                'celery',
                'mustard',
                'sesame',
                'sulphites',
                'lupin',
                'molluscs',
                self::ALCOHOL,
            ],
        };
    }
}
