<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;

/** Which cooking rule a product falls under. */
enum CookingCategory: string
{
    case Poultry = 'poultry';
    case NonIntact = 'non_intact';
    case Roast = 'roast';
    case Cut = 'cut';
    case Side = 'side';

    /**
     * @param bool $isPoultryLike stuffed, or wild game
     * @param bool $isPierced injected, bladed or otherwise opened before the end of the cook
     *
     * @return self|null null for commercial ready-to-eat food: it has no cooking rule
     */
    public static function of(
        Animal $animal,
        Form $form,
        Integrity $integrity,
        bool $isPoultryLike,
        bool $isPierced,
    ): ?self {
        return match (true) {
            $form === Form::CommercialReadyToEat => null,
            $form === Form::Side => self::Side,
            $animal->isPoultry(), $isPoultryLike => self::Poultry,
            $integrity === Integrity::NonIntact, $form === Form::Comminuted, $isPierced => self::NonIntact,
            // Fish is never a roast of the table.
            $form === Form::Roast && $animal !== Animal::Fish => self::Roast,
            default => self::Cut,
        };
    }
}
