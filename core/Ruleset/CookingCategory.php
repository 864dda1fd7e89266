<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Which cooking rule a product falls under. */
enum CookingCategory: string
{
    case Poultry = 'poultry';
    case NonIntact = 'non_intact';
    case Roast = 'roast';
    case Cut = 'cut';
}
