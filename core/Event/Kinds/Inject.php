<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;
use Verjuicer\Core\Measure\Weight;

/** A needle carried brine, and the surface, inside. */
#[EventKind(
    'inject',
    sayings: [new LinePhrase('inject', words: 'recipe')],
    offered: ['prep' => 40],
    taps: [new QuickAction(['', 'received', 'cold_hold', 'thaw', 'prep'], 10)],
    isMarked: true,
)]
final readonly class Inject implements CarriesSurfaceInside
{
    /** @param list<string> $allergens keys of the lists of major allergens */
    public function __construct(
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $recipe = null,
        #[FieldOptions(isOurs: true)] public ?Weight $weightKg = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public array $allergens = [],
        #[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
