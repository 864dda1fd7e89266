<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

/** The product of a recipe, and so its place in the work. */
enum RecipeKind: string
{
    case Rub = 'rub';
    case Binder = 'binder';
    case Brine = 'brine';
    case Spritz = 'spritz';
    case Sauce = 'sauce';
}
