<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** The species of the meat. */
enum Animal: string
{
    case Beef = 'beef';
    case Veal = 'veal';
    case Lamb = 'lamb';
    case Mutton = 'mutton';
    case Goat = 'goat';
    case Pork = 'pork';
    case Chicken = 'chicken';
    case Turkey = 'turkey';
    case Duck = 'duck';
    case Goose = 'goose';
    case GameBird = 'game_bird';
    case Game = 'game';
    case Fish = 'fish';
    /** A side: no raw animal food. */
    case None = 'none';

    public function isPoultry(): bool
    {
        return match ($this) {
            self::Chicken, self::Turkey, self::Duck, self::Goose, self::GameBird => true,
            default => false,
        };
    }
}
