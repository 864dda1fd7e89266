<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;
use Verjuicer\Core\Measure\Weight;

/** Sauced. */
#[EventKind(
    'sauce',
    sayings: [new LinePhrase('sauce', words: 'recipe'), new LinePhrase('glaze', words: 'recipe')],
    offered: ['cook' => 30],
    taps: [new QuickAction(['cook'], 70)],
    isMarked: true,
)]
final readonly class Sauce implements Detail
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
