<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;
use Verjuicer\Core\Measure\Weight;

/** Sauced. */
#[EventKind(
    'sauce',
    sayings: [new Saying('sauce', words: 'recipe'), new Saying('glaze', words: 'recipe')],
    offered: ['cook' => 30],
    taps: [new Tap(['cook'], 70)],
    isMarked: true,
)]
final readonly class Sauce implements Detail
{
    /** @param list<string> $allergens keys of the lists of major allergens */
    public function __construct(
        #[Says(isOurs: true, input: Input::Listed)] public ?string $recipe = null,
        #[Says(isOurs: true)] public ?Weight $weightKg = null,
        #[Says(isOurs: true, input: Input::Carried)] public array $allergens = [],
        #[Says(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
