<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

/** What a recipe makes, and so where in the work it is used. */
enum RecipeKind: string
{
    case Rub = 'rub';
    case Binder = 'binder';
    case Brine = 'brine';
    case Spritz = 'spritz';
    case Sauce = 'sauce';
}
