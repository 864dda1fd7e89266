<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;
use Verjuicer\Core\Measure\Weight;

/** A needle carried brine, and the surface, inside. */
#[EventKind(
    'inject',
    sayings: [new Saying('inject', words: 'recipe')],
    offered: ['prep' => 40],
    taps: [new Tap(['', 'received', 'cold_hold', 'thaw', 'prep'], 10)],
    isMarked: true,
)]
final readonly class Inject implements CarriesSurfaceInside
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
