<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\CookWay;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Temperature;

/** Onto the heat: the oven and its set point, which open or close the low rows of the roast table. */
#[EventKind(
    'cook',
    sayings: [
        new LinePhrase('cook', words: 'pit', number: 'set'),
        new LinePhrase('sear', words: 'pit', number: 'set', sets: ['way' => 'sear']),
        new LinePhrase('braise', words: 'pit', number: 'set', sets: ['way' => 'braise'], with: 'recipe'),
    ],
    offered: [
        '' => 30,
        'received' => 30,
        'thaw' => 30,
        'cold_hold' => 20,
        'freeze' => 20,
        'prep' => 10,
        'cook' => 20,
        'rest' => 40,
    ],
)]
final readonly class Cook implements BeginsStage
{
    /** @param list<string> $allergens keys of the lists of major allergens, of the braising liquid */
    public function __construct(
        public ?Oven $oven = null,
        public ?Temperature $set = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $pit = null,
        #[FieldOptions(isOurs: true)] public ?CookWay $way = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $recipe = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public array $allergens = [],
    ) {
    }
}
