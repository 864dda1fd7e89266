<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** Wrapped in foil, paper, a boat, a covered pan. */
#[EventKind(
    'wrap',
    sayings: [new Saying('wrap', words: 'with', with: 'recipe')],
    taps: [
        new Tap(['cook'], 10, ['with' => 'foil']),
        new Tap(['cook'], 20, ['with' => 'paper']),
        new Tap(['cook'], 30, ['with' => 'boat']),
        new Tap(['cook'], 40, ['with' => 'pan']),
    ],
    isMarked: true,
)]
final readonly class Wrap implements Detail
{
    /** @param list<string> $allergens keys of the lists of major allergens: of what went into the wrapping */
    public function __construct(
        #[Says(usual: ['foil', 'paper', 'boat', 'pan'])] public ?string $with = null,
        #[Says(isOurs: true, most: 500)] public ?int $piece = null,
        #[Says(isOurs: true, input: Input::Listed)] public ?string $recipe = null,
        #[Says(isOurs: true, input: Input::Carried)] public array $allergens = [],
    ) {
    }
}
