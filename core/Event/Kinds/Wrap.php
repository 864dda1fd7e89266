<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Wrapped in foil, paper, a boat, a covered pan. */
#[EventKind(
    'wrap',
    sayings: [new LinePhrase('wrap', words: 'with', with: 'recipe')],
    taps: [
        new QuickAction(['cook'], 10, ['with' => 'foil']),
        new QuickAction(['cook'], 20, ['with' => 'paper']),
        new QuickAction(['cook'], 30, ['with' => 'boat']),
        new QuickAction(['cook'], 40, ['with' => 'pan']),
    ],
    isMarked: true,
)]
final readonly class Wrap implements Detail
{
    /** @param list<string> $allergens keys of the lists of major allergens, of additions to the wrapping */
    public function __construct(
        #[FieldOptions(usual: ['foil', 'paper', 'boat', 'pan'])] public ?string $with = null,
        #[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $recipe = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public array $allergens = [],
    ) {
    }
}
